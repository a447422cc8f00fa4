import type { List, ListSettings } from '../../core/packet';
import { post } from '../post';
import { tell } from '../parts/told';

/**
 * Keeps what changes of how this account has a list, also where the page is left at once; what can't be kept is said, and
 * holds for this visit all the same.
 */
export async function keepList(list: List, change: Partial<ListSettings>): Promise<void> {
	const done = await post('/lists', { list, ...change }, 'The list stays as it is until you leave it.', true);
	if ('wrong' in done) tell(done.wrong);
}
