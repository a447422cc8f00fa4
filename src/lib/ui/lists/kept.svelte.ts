import type { List, ListSettings } from '../../core/packet';
import { post } from '../post';
import { tell } from '../parts/told';

/**
 * How this account has a list. What changes is kept, also where the page is left at once; what can't be kept is said, and holds for this
 * visit all the same.
 */
export class KeptList {
	#kept: () => ListSettings;
	settings = $derived.by(() => this.#kept());

	/** @param kept as the server has it */
	constructor(
		private list: List,
		kept: () => ListSettings
	) {
		this.#kept = kept;
	}

	keep = (change: Partial<ListSettings>): void => {
		this.settings = { ...this.settings, ...change };
		void this.send(change);
	};

	private async send(change: Partial<ListSettings>): Promise<void> {
		const kept = 'The list stays as it is until you leave it.';
		const done = await post('/lists', { list: this.list, ...change }, kept, { small: true });
		if ('wrong' in done) tell(done.wrong);
	}
}
