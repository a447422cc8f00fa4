export { isAddress } from './address';
export type { Command, Names } from './commands';
export { decide } from './decide';
export type { Actor, From, MessagePurpose, PacketEvent, Recorded } from './events';
export { evolve, fold, type PlanLookup } from './evolve';
export {
	DUTIES,
	emptyPlan,
	EVERYBODY,
	localeOf,
	LOCALES,
	personIn,
	PlanSchema,
	SENDER,
	type Attachment,
	type Duty,
	type Field,
	type KindName,
	type Paper,
	type Plan,
	type PlanLock,
	type PlanPerson,
	type PersonLock
} from './plan';
export { preflight, preflightTemplate, type Finding } from './preflight';
export { addressOf, type Packet, type SentPacket, type Standing, type Status } from './state';
export type { Need, Thread, ThreadPerson } from './views';
