import { kindOf } from '../../core/field';
import { isOpen, type Plan, type PlanPerson, type SentPacket } from '../../core/packet';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { organisation } from '../settings';

/** Where people stumble in a template: counted per field where the organisation lets it, without who and without what they typed. */

/** What a page tells of one visit to it. */
export interface Told {
	last: string;
	fields: {
		field: string;
		seconds: number;
		visits: number;
		back: number;
		refused: { code: string; n: number }[];
	}[];
}

/** One field of a template, with what was counted of it in all its versions that have it. */
export interface Stumbles {
	field: string;
	label: string;
	visits: number;
	/** on average, each time */
	seconds: number;
	back: number;
	refused: { code: string; n: number }[];
	/** the last field of somebody who never came back, or who then declined */
	left: number;
	declined: number;
}

/** So often one person's page may tell: whoever writes a page of their own can't make the counts say what they like. */
const MOST_TOLD = 40;

/** Whether a packet's pages count where people stumble. */
export const countsStumbles = (db: Db, { plan }: SentPacket): boolean =>
	organisation(db).stumbles === true && plan.from?.[0] !== undefined;

/** Counts what a page has told. Fields that are not this person's are left out. */
export function stumbled(
	{ db }: House,
	{ packet, person, proved }: { packet: SentPacket; person: PlanPerson; proved: boolean },
	{ fields, last }: Told
): void {
	const from = packet.plan.from?.[0];
	if (!proved || !from || !countsStumbles(db, packet)) return;
	const own = new Set(packet.plan.fields.filter((field) => field.person === person.id).map(({ id }) => id));
	inTransaction(db, () => {
		const told = db
			.prepare<[string, string], number>('SELECT told FROM field_last WHERE packet = ? AND person = ?')
			.pluck()
			.get(packet.packet, person.id);
		if ((told ?? 0) >= MOST_TOLD) return;
		db.prepare(
			`INSERT INTO field_last (packet, person, field, told) VALUES (?, ?, ?, 1)
			 ON CONFLICT DO UPDATE SET field = CASE excluded.field WHEN '' THEN field ELSE excluded.field END, told = told + 1`
		).run(packet.packet, person.id, own.has(last) ? last : '');
		for (const one of fields.filter(({ field }) => own.has(field))) {
			const add = adder(db, from.template, String(from.version), one.field);
			add('visits', '', one.visits);
			add('seconds', '', one.seconds);
			add('back', '', one.back);
			for (const { code, n } of one.refused) add('refused', code, n);
		}
	});
}

const adder =
	(db: Db, template: string, version: string, field: string) =>
	(what: string, reason: string, n: number): void => {
		if (n > 0)
			db.prepare(
				`INSERT INTO field_counts (template, version, field, what, reason, n) VALUES (?, ?, ?, ?, ?, ?)
				 ON CONFLICT DO UPDATE SET n = n + excluded.n`
			).run(template, version, field, what, reason, n);
	};

/** Counts at which field those were last who did not get to the end; forgets it for all whose part is over. */
export function settleLast(db: Db, state: SentPacket): void {
	const from = state.plan.from?.[0];
	for (const { person, field } of db
		.prepare<[string], { person: string; field: string }>('SELECT person, field FROM field_last WHERE packet = ?')
		.all(state.packet)) {
		const standing = state.people[person]?.is;
		const ended = state.status === 'expired' || state.status === 'withdrawn';
		const how = standing === 'declined' ? 'declined' : ended && standing !== 'done' ? 'left' : null;
		if (how === null && standing !== 'done' && standing !== 'skipped' && isOpen(state)) continue;
		if (how && from && field !== '') adder(db, from.template, String(from.version), field)(how, '', 1);
		db.prepare('DELETE FROM field_last WHERE packet = ? AND person = ?').run(state.packet, person);
	}
}

/** The fields of a template at which people stumble, the worst first. */
export function stumblesOf({ db }: House, template: string, plan: Plan): Stumbles[] {
	const rows = db
		.prepare<[string], { field: string; what: string; reason: string; n: number }>(
			'SELECT field, what, reason, n FROM field_counts WHERE template = ?'
		)
		.all(template);
	const worst = ({ back, refused, left, declined }: Stumbles) =>
		back + refused.reduce((sum, { n }) => sum + n, 0) + 3 * (left + declined);
	return plan.fields
		.flatMap((field): Stumbles[] => {
			const mine = rows.filter((row) => row.field === field.id);
			const sum = (fits: (row: (typeof mine)[0]) => boolean) =>
				mine.reduce((all, row) => all + (fits(row) ? row.n : 0), 0);
			const n = (what: string) => sum((row) => row.what === what);
			// versions that have the field are added up
			const codes = [...new Set(mine.flatMap(({ what, reason }) => (what === 'refused' ? [reason] : [])))];
			if (n('visits') === 0) return [];
			return [
				{
					field: field.id,
					label: field.label || kindOf(field.kind).name,
					visits: n('visits'),
					seconds: Math.round(n('seconds') / n('visits')),
					back: n('back'),
					refused: codes.map((code) => ({ code, n: sum(({ what, reason }) => what === 'refused' && reason === code) })),
					left: n('left'),
					declined: n('declined')
				}
			];
		})
		.filter((one) => worst(one) > 0)
		.sort((a, b) => worst(b) - worst(a));
}
