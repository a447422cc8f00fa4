import type { House } from '../house';
import { noteAmendment } from '../amending';
import { stampCopies } from '../lasting';
import { makeCertificate } from './disposal';
import { reckonKept } from './reckoning';
import { mergeWords } from './tending';
import { tellWitness } from './witness';

export { dispose, disposalOf, disposals } from './disposal';
export { dueRows } from './due';
export { holdsOn, liftHold, listHolds, setHold } from './holds';
export { forgetPerson, heldOn, personAsZip } from './person';
export { dropRule, keepRule } from './rules';
export { setWitness, witness, witnessRoots } from './witness';
export { tendKeeping } from './tending';
export { weigh, weightOf } from './weight';

/** What is asked of this room by a job. */
export type KeepingJob =
	| { do: 'reckon' }
	| { do: 'merge' }
	| { do: 'certificate'; number: number }
	| { do: 'amended'; packet: string }
	| { do: 'witness'; day: string }
	| { do: 'stamp'; of: string };

export function workKeeping(house: House, job: KeepingJob, done: () => void): Promise<string | null> {
	switch (job.do) {
		case 'stamp':
			return stampCopies(house, job.of, done);
		case 'witness':
			return tellWitness(house, job.day, done);
		case 'reckon':
			return reckonKept(house, done);
		case 'merge':
			return mergeWords(house, done);
		case 'amended':
			return noteAmendment(house, job.packet, done);
		case 'certificate':
			return makeCertificate(house, job.number, done);
	}
}
