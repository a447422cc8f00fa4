export { askedPlan, fieldsOfItem, keyOf } from './asked';
export { casePlan, laterFault, wayFault, type Somebody, type Starting } from './begin';
export { checkIntake, type IntakeFinding } from './faults';
export { followUpsDue } from './follow';
export { CLOSED, closedNow, mayStart, type IntakeState } from './opening';
export {
	DOCUMENT,
	emptyIntake,
	IntakeSchema,
	NamedSchema,
	QUESTION_KINDS,
	type Door,
	type FollowUp,
	type Intake,
	type IntakePage,
	type Item,
	type Named,
	type Question,
	type QuestionKind,
	type Say
} from './schema';
export { answerAs, walked, type Passed, type Way } from './walk';
export type { Asking, CaseRow, CaseStanding, VisitorView } from './views';
export { SHUT, waysThrough, type Ways } from './ways';
