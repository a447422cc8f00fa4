export { listedHosts, listHosts } from './address';
export { tellNext } from './delivering';
export { KINDS_OF_HOOKS, type HookKind } from './kinds';
export { receivedMessages, receive, receiverAddress, type Received } from './receiver';
export {
	deliveriesOf,
	endHook,
	hooksOf,
	makeHook,
	renewSecret,
	sweepDeliveries,
	tellAgain,
	type Delivery,
	type Hook
} from './store';
export { tellHooks, type HookJob } from './telling';
