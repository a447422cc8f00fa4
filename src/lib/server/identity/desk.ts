import { judge, type Judged, type Side, type Wanted } from '../../core/identity';
import { isRefusal } from '../../core/refusal';
import { readSide, seeSideInWorker } from '../../press';
import type { House } from '../house';
import { deskMode } from './setting';

/**
 * The ID desk: an outside service that looks at pictures of documents. This one is a stand-in that ships with Pellum; it computes what
 * can be computed here, and says what it can't. A real one would be asked the same.
 */
export interface IdDesk {
	/** what was found; a string: why it can't be asked now */
	look(asked: DeskRequest): Promise<Judged | string>;
}

export interface DeskRequest {
	sides: { side: Side; bytes: Uint8Array }[];
	wanted: Wanted;
}

/** How long the stand-in takes when it is to be slow, in ms. */
const SLOW = 8000;

export function standInDesk(house: House): IdDesk {
	return {
		async look({ sides, wanted }) {
			const mode = deskMode(house.db);
			if (mode === 'down') return 'the ID desk does not answer';
			if (mode === 'slow') await new Promise((go) => setTimeout(go, SLOW));
			const read = [];
			for (const { side, bytes } of sides) {
				const seen = await seeSideInWorker({ side, bytes });
				if (isRefusal(seen)) throw new Error(`a picture that was kept can't be read: ${seen.code}`);
				read.push(await readSide(side, seen));
			}
			return told(judge(read, wanted), mode);
		}
	};
}

/** As the stand-in was told to find it: said as a check of its own, so that nobody takes it for what the pictures say. */
function told(found: Judged, mode: string): Judged {
	if (mode !== 'unsure' && mode !== 'fails') return found;
	const outcome = mode === 'unsure' ? 'unsure' : 'wrong';
	const checks = found.checks.map((one) =>
		one.check === 'forgery' ? ({ ...one, outcome, measure: `the stand-in was told: ${mode}` } as const) : one
	);
	return { ...found, checks, verdict: outcome };
}
