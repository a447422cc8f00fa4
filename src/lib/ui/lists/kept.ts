import type { List, ListSettings } from '../../core/packet';
import { post } from '../post';
import { tell } from '../parts/told';

/** Keeps how this account has a list; what can't be kept is said, and holds for this visit all the same. */
export async function keepList(list: List, settings: ListSettings): Promise<void> {
	const done = await post('/lists', { list, ...settings }, 'The list stays as it is until you leave it.');
	if ('wrong' in done) tell(done.wrong);
}
