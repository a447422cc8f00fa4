export { journalAsCsv, journalAsPdf, journalFaults, journalOf } from './journal';
export {
	drawSeal,
	endNotary,
	keepNotary,
	letPlay,
	notaries,
	notariesToChoose,
	notaryById,
	notaryOfPlan,
	setSeal,
	standInNotaries
} from './notaries';
export { appointmentFile } from './calendar';
export { playNotary } from './playing';
export { roomView } from './room';
export { appoint, doInRoom, type RoomDeed } from './session';
export { roomBorder } from './border';
export { sessionsOf } from './sessions';
