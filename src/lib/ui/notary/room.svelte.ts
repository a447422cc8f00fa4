import type { RoomView } from '../../core/packet';
import { patient } from '../post';
import { send } from '../signing/keeper';
import type { Words } from '../../words/words';

/** How often a room is asked for anew, in ms. */
const EVERY = 1500;

/** The room as it is now, and what is done in it. `base`: `/s/TOKEN`. */
export class Room {
	view: RoomView;
	busy = $state(false);
	wrong = $state('');

	constructor(
		readonly base: string,
		first: RoomView,
		private words: () => Words
	) {
		this.view = $state.raw(first);
	}

	/** Asks for news until it is called off. */
	follow(): () => void {
		const timer = setInterval(() => {
			if (this.view.is !== 'over') void this.refresh();
		}, EVERY);
		return () => clearInterval(timer);
	}

	async refresh(): Promise<void> {
		const response = await patient(`${this.base}/room/now`, {}).catch(() => null);
		if (response?.ok) this.view = (await response.json()) as RoomView;
	}

	/** Whether it was done; what it was refused for stands in `wrong`. */
	async deed(what: object): Promise<boolean> {
		this.busy = true;
		const kept = await send(`${this.base}/room/do`, 'POST', what, this.words());
		this.wrong = kept.ok ? '' : kept.say;
		await this.refresh();
		this.busy = false;
		return kept.ok;
	}
}
