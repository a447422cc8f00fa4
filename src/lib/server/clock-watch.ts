import type { House } from './house';
import { BY_ITSELF, note } from './office-record';
import { readSetting, writeSetting } from './settings';

/** Watches whether the machine's clock jumps, against one that only goes forward. */

/** A jump is more than so much, in ms. */
const JUMP = 120_000;
const EVERY = 30_000;
const SHOWN_DAYS = 7;

export interface Jump {
	at: string;
	/** forward; back where below 0 */
	seconds: number;
}

export class ClockWatch {
	private wall: number;
	private steady: number;

	/** @param clocks the machine's time and one that only goes forward, in ms */
	constructor(
		private house: House,
		private clocks = { wall: () => Date.now(), steady: () => performance.now() }
	) {
		this.wall = clocks.wall();
		this.steady = clocks.steady();
	}

	/** Begins to watch, and looks first whether the clock is behind what was written before. */
	start(): NodeJS.Timeout {
		const last = lastWritten(this.house);
		const now = this.house.now().getTime();
		if (last - now > JUMP) this.tell(now - last);
		const timer = setInterval(() => this.look(), EVERY);
		timer.unref();
		return timer;
	}

	look(): void {
		const [wall, steady] = [this.clocks.wall(), this.clocks.steady()];
		const jump = wall - this.wall - (steady - this.steady);
		[this.wall, this.steady] = [wall, steady];
		if (Math.abs(jump) > JUMP) this.tell(jump);
	}

	private tell(ms: number): void {
		const { house } = this;
		const seconds = Math.round(ms / 1000);
		note(house, BY_ITSELF, { type: 'ClockJumped', seconds });
		writeSetting(house.db, 'clock-jumped', JSON.stringify({ at: house.now().toISOString(), seconds } satisfies Jump));
		house.changes.emit('packet', '');
	}
}

/** When the newest event of either record was written, in ms. */
function lastWritten({ db }: House): number {
	const packet = db.prepare<[], string>("SELECT body ->> '$.at' FROM events ORDER BY seq DESC LIMIT 1").pluck().get();
	const office = db
		.prepare<[], string>("SELECT body ->> '$.at' FROM office_events ORDER BY n DESC LIMIT 1")
		.pluck()
		.get();
	return Math.max(...[packet, office].map((at) => (at ? Date.parse(at) : 0)));
}

/** The last jump, for a week after it, for the Desk. */
export function lateJump(house: House): Jump | null {
	const kept = readSetting(house.db, 'clock-jumped');
	if (!kept) return null;
	const jump = JSON.parse(kept) as Jump;
	return Math.abs(house.now().getTime() - Date.parse(jump.at)) < SHOWN_DAYS * 86_400_000 ? jump : null;
}
