export { tellNext } from './delivering';
export { KINDS_OF_HOOKS } from './kinds';
export { receivedMessages, receive, receiverAddress } from './receiver';
export { deliveriesOf, endHook, hooksOf, makeHook, renewSecret, sweepDeliveries, tellAgain } from './store';
export type { HookJob } from './telling';
