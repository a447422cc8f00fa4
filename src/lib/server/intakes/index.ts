export { caseAt, caseById } from './case';
export { answersOfCases, codeAsPng, codeAsSvg } from './exporting';
export { followUp, type FollowJob } from './following';
export { framesFor } from './framing';
export { caseFault, handIn } from './handing-in';
export { casesOf, leftAt, sweepCases, takeOver } from './office';
export {
	intakeAt,
	listIntakes,
	newIntake,
	putIntakeInUse,
	readIntake,
	saveIntake,
	setIntakeState,
	templatePlan,
	throwIntakeAway,
	versionOf
} from './store';
export { invitePeople, peopleOn } from './people';
export { askCaseCode, letterJob, newCaseCode, proveCase } from './proving';
export { rowCounts, rowOfEvent, rowsThatFollowed } from './rows';
export { shownOf, visitorView } from './view';
export { beginCase, keepCase } from './visiting';
