import { judgeReturn, type Judged } from '../../core/paper';
import type { House } from '../house';
import { picturesOf, type OutKept } from './store';

/** The judgement over all that was handed in so far. */
export function judged(house: House, out: OutKept): Judged {
	return judgeReturn(
		out.sheets,
		picturesOf(house.db, out.id).flatMap(({ seen }) => (seen ? [seen] : []))
	);
}
