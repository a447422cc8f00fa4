import { deadlineAfter, isoDay } from '../../core/calendar';
import {
	amongValue,
	forecast,
	NEAR,
	stopsAhead,
	stopsOf,
	waysToAsk,
	type Forecast,
	type PlacedStop,
	type Spread
} from '../../core/pace';
import {
	isOpen,
	type LikelyCourse,
	type LikelyDates,
	type Plan,
	type Recorded,
	type SentPacket
} from '../../core/packet';
import type { Db } from '../db';
import type { House } from '../house';
import { likelyIn } from '../packets/rows';
import { knownTo } from './curves';
import { helpsWith } from './helping';

/** Forecasts of what is out, each kept as it was reckoned last: screens read them, a job reckons them. */

/** A day and the share of cases that are done on it, in thousandths, of the days that are near. */
type Coming = [day: string, n: number][];
/** What is counted of a forecast under `coming`: in which folder, among what, on which days. */
export interface Counted {
	folder: string;
	among: string[];
	days: Coming;
}

/** From this chance on it is called likely that something is late. */
const LATE = 0.5;
const DAY = 86_400_000;

/** Writes the forecast of a packet, or takes it off where it is not out any more. Runs in the caller's transaction. */
export function foretell(house: House, state: SentPacket, events: readonly Recorded[], owner: string): void {
	const { db } = house;
	forgetForecast(db, state.packet);
	if (!isOpen(state)) return;
	const now = house.now().toISOString();
	const known = knownTo(house);
	const seen = reckoned(stopsAhead(state, events, now, known), state.deadline, now);
	const coming = comingOf(seen, now, known.days.zone);
	const among = waysToAsk({ template: state.plan.from?.[0]?.template ?? '', type: state.type, sender: owner });
	const counted: Counted = {
		folder: state.folder,
		among: among.map(amongValue),
		days: seen.tooFew ? [] : coming
	};
	const whole = datesOf(seen.whole, now);
	db.prepare(
		`INSERT INTO forecasts (packet, as_of, rests_on, too_few, chance, whole, stops, helps, counted)
		 VALUES (@packet, @now, @restsOn, @tooFew, @chance, @whole, @stops, @helps, @counted)`
	).run({
		packet: state.packet,
		now,
		restsOn: seen.restsOn,
		tooFew: seen.tooFew ? 1 : 0,
		chance: seen.late,
		whole: JSON.stringify(whole),
		stops: JSON.stringify(placed(seen, now)),
		helps: !seen.tooFew && seen.late !== null && seen.late >= LATE ? helpsWith(house, state.packet) : '',
		counted: JSON.stringify(counted)
	});
	const likely = { middle: whole.middle, chance: seen.late, tooFew: seen.tooFew };
	writeLikely(db, state.packet, JSON.stringify(likely), seen.tooFew ? 0 : seen.unusual);
	addComing(db, counted, 1);
}

/** On its own row, which lists read anyway. */
const writeLikely = (db: Db, packet: string, likely: string, unusual: number) =>
	db.prepare('UPDATE packets SET likely = ?, unusual = ? WHERE id = ?').run(likely, unusual.toFixed(4), packet);

/** What is kept of a packet's future; null where it is not out, or nobody has reckoned it yet. */
export function forecastOf(db: Db, packet: string): LikelyCourse | null {
	const row = db
		.prepare<[string], { restsOn: number; whole: string; stops: string; likely: string; unusual: string }>(
			`SELECT f.rests_on AS restsOn, f.whole, f.stops, p.likely, p.unusual
			 FROM forecasts f JOIN packets p ON p.id = f.packet WHERE f.packet = ?`
		)
		.get(packet);
	const likely = row ? likelyIn(row.likely, row.unusual) : null;
	if (!row || !likely) return null;
	return {
		...likely,
		restsOn: row.restsOn,
		whole: JSON.parse(row.whole) as LikelyDates,
		stops: JSON.parse(row.stops) as LikelyCourse['stops']
	};
}

/** When a plan would likely be done, were it sent now. */
export function foretellPlan(house: House, plan: Plan): LikelyCourse {
	const now = house.now().toISOString();
	const known = knownTo(house);
	const { zone, holidays } = known.days;
	const working = plan.sending?.workingDays ? [[...holidays]] : [];
	const deadline = plan.days === null ? null : deadlineAfter(now, plan.days, zone, ...working);
	const seen = reckoned(stopsOf(plan, now, known), deadline, now);
	const whole = datesOf(seen.whole, now);
	return {
		restsOn: seen.restsOn,
		tooFew: seen.tooFew,
		chance: seen.late,
		unusual: seen.unusual,
		middle: whole.middle,
		stops: placed(seen, now),
		whole
	};
}

type Reckoned = Forecast & { places: number[]; unusual: number };

function reckoned(stops: readonly PlacedStop[], deadline: string | null, now: string): Reckoned {
	const limit = deadline === null ? null : (Date.parse(deadline) - Date.parse(now)) / DAY;
	return {
		...forecast(stops, limit),
		places: stops.map(({ place }) => place),
		unusual: Math.max(0, ...stops.map((stop) => stop.unusual))
	};
}

const placed = ({ stops, places }: Reckoned, now: string): LikelyCourse['stops'] =>
	stops.map((spread, i) => ({ place: places[i]!, dates: spread ? datesOf(spread, now) : null }));

/** Takes what is said of a packet's future off again. */
export function forgetForecast(db: Db, packet: string): void {
	const was = db.prepare<[string], string>('SELECT counted FROM forecasts WHERE packet = ?').pluck().get(packet);
	if (was === undefined) return;
	addComing(db, JSON.parse(was) as Counted, -1);
	db.prepare('DELETE FROM forecasts WHERE packet = ?').run(packet);
	writeLikely(db, packet, '', 0);
}

function datesOf(spread: Spread, now: string): LikelyDates {
	const at = (days: number | null) => (days === null ? null : new Date(Date.parse(now) + days * DAY).toISOString());
	return {
		early: at(spread.early),
		quarter: at(spread.quarter),
		middle: at(spread.middle),
		threeQuarters: at(spread.threeQuarters),
		late: at(spread.late)
	};
}

function comingOf({ cases, endsBadly }: Forecast, now: string, zone: string): Coming {
	const share = ((1 - endsBadly) * 1000) / Math.max(1, cases.length);
	const days = new Map<string, number>();
	for (const after of cases) {
		if (after > NEAR) break;
		const day = isoDay(zone, new Date(Date.parse(now) + after * DAY).toISOString());
		days.set(day, (days.get(day) ?? 0) + share);
	}
	return [...days].map(([day, n]): [string, number] => [day, Math.round(n)]).filter(([, n]) => n > 0);
}

function addComing(db: Db, { folder, among, days }: Counted, sign: 1 | -1): void {
	const add = db
		.prepare<[string, string, string, number], number>(
			`INSERT INTO coming (among, day, folder, n) VALUES (?, ?, ?, ?)
			 ON CONFLICT DO UPDATE SET n = n + excluded.n RETURNING n`
		)
		.pluck();
	const drop = db.prepare('DELETE FROM coming WHERE among = ? AND day = ? AND folder = ?');
	for (const value of among)
		for (const [day, n] of days) if (add.get(value, day, folder, sign * n) === 0) drop.run(value, day, folder);
}
