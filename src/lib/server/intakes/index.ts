export { caseAt, caseById, checkedEntered, wayOf, type Case, type Entered } from './case';
export { answersOfCases, asFile, codeAsPng, codeAsSvg } from './exporting';
export { followUp, rowCounts, rowsThatFollowed, type FollowJob } from './following';
export { framesFor } from './framing';
export { caseFault, handIn, type HandedIn } from './handing-in';
export { casesOf, leftAt, sweepCases, takeOver, type CaseRow, type CaseStanding } from './office';
export {
	intakeAt,
	judgeIntake,
	listIntakes,
	newIntake,
	putIntakeInUse,
	readIntake,
	saveIntake,
	setIntakeState,
	templatePlan,
	versionOf,
	type IntakeRow,
	type KeptIntake
} from './store';
export { invitePeople, peopleOn } from './people';
export { shownOf, visitorView, type VisitorView } from './view';
export { askCaseCode, beginCase, invitedBy, keepCase, letterJob, newCaseCode, openIntake, proveCase } from './visiting';
