export { isAddress } from './address';
export {
	changesOf,
	correctionFault,
	groundOf,
	presentPlan,
	rebased,
	type Ground,
	type PlanChange,
	type SeenPart
} from './correcting';
export type { Command, Names } from './commands';
export { decide } from './decide';
export { mustProve, stillToShow, TAKES_PART, takesPart, triesLeft } from './deciding/identity';
export { neededByRules, NO_PAPER, noPaper } from './deciding/paper';
export type {
	Actor,
	Begun,
	DoubtFound,
	FollowedWhat,
	From,
	HowJudged,
	MessagePurpose,
	PacketEvent,
	PageAdded,
	PageSeen,
	PaperExchanged,
	PaperTaken,
	Recorded
} from './events';
export { evolve, fold, type PlanLookup } from './evolve';
export { exchangedPlan } from './inks';
export {
	ASKED,
	CheckSchema,
	DELIVERIES,
	DUTIES,
	emptyPlan,
	EVERYBODY,
	localeFor,
	localeOf,
	LOCALES,
	personIn,
	PlanSchema,
	RectSchema,
	SENDER,
	type Attachment,
	type DeliveryWay,
	type Duty,
	type Field,
	type IdentityCheck,
	type KindName,
	type Paper,
	type Plan,
	type PlanLock,
	type PlanPerson,
	type PersonLock,
	type Stop
} from './plan';
export { graveFault, lettersFault, isKnownBefore, preflight, preflightTemplate, type Finding } from './preflight';
export { isPhone } from './phone';
export { channelsOf, isMailed, isTexted } from './reach';
export type { RoomPerson, RoomView } from './room-view';
export type { Sending } from './sending';
export {
	actFields,
	comersOf,
	drawnPlan,
	isGuestOfNotary,
	isInRoom,
	isSessionOpen,
	isWatched,
	placedPlan,
	stagesOf,
	type Stage
} from './sessions';
export {
	addressOf,
	anybodyIn,
	isOpen,
	isShut,
	NOTHING_SHOWN,
	phoneOf,
	planOfRecord,
	stillAt,
	type Channel,
	type PutAway,
	type Ink,
	type Packet,
	type SentPacket,
	type Standing,
	type WordingRequest
} from './state';
export { nextMoment, termEndOf } from './time';
export type {
	BatchLine,
	BatchStanding,
	Correcting,
	DraftRow,
	Likely,
	LikelyCourse,
	LikelyDates,
	Need,
	OutRow,
	PacketView,
	Work,
	Thread,
	ThreadPerson
} from './views';
export { filesIn } from './files';
export { askedIn, askedOf, placeOf } from './list-address';
export {
	AWAY_AT_FIRST,
	FROM_THE_END,
	ENDINGS,
	LISTS,
	SORTS,
	type Ending,
	type Filter,
	type List,
	type ListSettings,
	type PacketList,
	type PacketsAsked,
	type Place,
	type Sort
} from './list';
