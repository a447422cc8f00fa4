import { expose } from 'comlink';
import { checkIntake, type Intake, type IntakeFinding, type Ways } from '../../core/intake';
import type { Plan } from '../../core/packet';

/** All ways through an intake are tried beside the interface, so that typing never waits for it. */
const judge = {
	judge(template: Plan, setting: Intake, today: string): { found: IntakeFinding[]; ways: Ways } {
		return checkIntake(template, setting, today);
	}
};
export type Judge = typeof judge;
expose(judge);
