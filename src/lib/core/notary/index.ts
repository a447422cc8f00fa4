export { ACTS, actText, OATH, PLACEABLE, stepsOf, type PlacedKind, type Step } from './acts';
export { ACT_KINDS, type ActKind } from './asked';
export {
	commissionFault,
	CommissionSchema,
	hoursInWords,
	isInHours,
	type Commission,
	type CommissionGiven,
	type CommissionSaid
} from './commission';
export { JOURNAL_COLUMNS, journalRow, type JournalEntry } from './journal';
