import { judgeReturn, type Judged } from '../../core/paper';
import type { OutKept, PictureKept } from './store';

/** The judgement over all that was handed in so far. */
export const judged = (out: OutKept, pictures: readonly PictureKept[]): Judged =>
	judgeReturn(
		out.sheets,
		pictures.flatMap(({ seen }) => (seen ? [seen] : []))
	);
