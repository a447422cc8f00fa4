import { randomBytes } from 'node:crypto';
import { isoDay } from '../../core/calendar';
import {
	askedPlan,
	checkIntake,
	emptyIntake,
	IntakeSchema,
	type Intake,
	type IntakeFinding,
	type IntakeState,
	type Item,
	type Ways
} from '../../core/intake';
import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { openRoles, roleName } from '../../core/template';
import { accountById, type Account } from '../accounts';
import { border } from '../border';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { checkedPlan } from '../packets/plan-border';
import { organisation } from '../settings';
import { planForUse, planOfVersion } from '../templates';

/** Intakes as the office makes them: what is worked on, and what was put in use. */

export interface KeptIntake {
	id: string;
	slug: string;
	owner: string;
	template: string;
	/** what is worked on */
	setting: Intake;
	revision: number;
	state: IntakeState;
	/** the one that visitors see; 0: none yet */
	version: number;
	/** how many cases were begun, and handed in */
	begun: number;
	handed: number;
	changedAt: string;
}

interface Row extends Omit<KeptIntake, 'setting' | 'changedAt'> {
	setting: string;
	changed_at: string;
}

export const NO_INTAKE = refuse('no-intake', 'There is no such page here.');
const CHANGED = refuse('changed-elsewhere', 'This intake has been changed in another tab. Look at that first.');
/** An intake as it comes from outside, or from the database. */
export const checkedIntake = border(IntakeSchema);

const kept = ({ setting, changed_at, ...row }: Row): KeptIntake => ({
	...row,
	setting: JSON.parse(setting) as Intake,
	changedAt: changed_at
});

export function readIntake(house: House, id: string): KeptIntake | Refusal {
	const row = house.db
		.prepare<[string], Row>(
			'SELECT id, slug, owner, template, setting, revision, state, version, begun, handed, changed_at FROM intakes WHERE id = ?'
		)
		.get(id);
	return row ? kept(row) : NO_INTAKE;
}

/** An intake by the word in its address. */
export function intakeAt(house: House, slug: string): KeptIntake | Refusal {
	const id = house.db.prepare<[string], string>('SELECT id FROM intakes WHERE slug = ?').pluck().get(slug);
	return id === undefined ? NO_INTAKE : readIntake(house, id);
}

/** What visitors saw from a version on. */
export function versionOf(house: House, id: string, version: number): Intake | null {
	const setting = house.db
		.prepare<[string, number], string>('SELECT setting FROM intake_versions WHERE intake = ? AND version = ?')
		.pluck()
		.get(id, version);
	return setting === undefined ? null : (JSON.parse(setting) as Intake);
}

/** The plan an intake is made over: the version of the template that it names, or the one in use. Refuses what can't be used now. */
export function templatePlan(
	house: House,
	intake: Pick<KeptIntake, 'owner' | 'template'>,
	version?: number
): { plan: Plan; title: string } | Refusal {
	const owner = accountById(house, intake.owner);
	if (!owner) return refuse('no-owner', 'Whoever made this intake has no account here any more.');
	const found = planForUse(house, owner, intake.template);
	if (isRefusal(found) || version === undefined || found.plan.from?.[0]?.version === version) return found;
	const plan = planOfVersion(house, intake.template, version);
	return isRefusal(plan) ? plan : { ...found, plan: { ...plan, from: [{ template: intake.template, version }] } };
}

/** A new intake over a template: its first open role is whom a case is about, and every question of theirs with a key is asked on one page. */
export function newIntake(house: House, account: Account, template: string): { id: string } | Refusal {
	const found = planForUse(house, account, template);
	if (isRefusal(found)) return found;
	const id = newId(house.now());
	house.db
		.prepare('INSERT INTO intakes (id, slug, owner, template, setting, changed_at) VALUES (?, ?, ?, ?, ?, ?)')
		.run(
			id,
			newSlug(),
			account.id,
			template,
			JSON.stringify(startingFrom(found.plan, found.title)),
			house.now().toISOString()
		);
	return { id };
}

/** Enough chance that nobody guesses one (80 bits), in letters that can be read out. */
const newSlug = (): string =>
	[...randomBytes(16)].map((byte) => '0123456789abcdefghjkmnpqrstvwxyz'[byte % 32]).join('');

function startingFrom(plan: Plan, title: string): Intake {
	const open = openRoles(plan);
	const starter = plan.stops.flatMap((stop) => stop.people).find((one) => open.some(({ id }) => id === one)) ?? '';
	const named = open.filter(({ id, optional }) => id !== starter && !optional);
	const intake = emptyIntake(title, starter);
	if (named.length === 0) return intake;
	const items = named.map((person): Item => ({
		id: `p-${person.id}`,
		is: 'people',
		roles: [person.id],
		help: roleName(person)
	}));
	return { ...intake, pages: [{ id: 'people', title: 'Who takes part', items }] };
}

/** Keeps what was changed. Refuses what is malformed, and `changed-elsewhere` where it has moved on since `revision`. */
export function saveIntake(
	house: House,
	id: string,
	revision: number,
	wanted: unknown
): { revision: number } | Refusal {
	const setting = checkedIntake(wanted);
	if (isRefusal(setting)) return setting;
	const { changes } = house.db
		.prepare('UPDATE intakes SET setting = ?, revision = revision + 1, changed_at = ? WHERE id = ? AND revision = ?')
		.run(JSON.stringify(setting), house.now().toISOString(), id, revision);
	if (changes > 0) return { revision: revision + 1 };
	return isRefusal(readIntake(house, id)) ? NO_INTAKE : CHANGED;
}

/** What is wrong with it as it is worked on, and the ways through. */
export function judgeIntake(house: House, intake: KeptIntake): { found: IntakeFinding[]; ways: Ways } | Refusal {
	const template = templatePlan(house, intake, intake.setting.version);
	if (isRefusal(template)) return template;
	// the settings of its own questions are free in its shape: each kind has its own
	const odd = checkedPlan(askedPlan(template.plan, intake.setting));
	if (isRefusal(odd)) return { ...odd, ...itemOfField(intake.setting, odd.at) };
	return checkIntake(template.plan, intake.setting, isoDay(organisation(house.db).zone, house.now().toISOString()));
}

/** The question that a field of the asked plan stands for. */
function itemOfField(setting: Intake, field = ''): { at?: string } {
	const items = setting.pages.flatMap((page) => page.items);
	const item = items.find(({ id }) => field === `q-${id}` || field.startsWith(`q-${id}-`));
	return item ? { at: item.id } : {};
}

/** Opens it to visitors as it is worked on now; cases that have begun go on as they were. Refuses what stands in the way. */
export function putIntakeInUse(
	house: House,
	account: Account,
	id: string,
	revision: number
): { version: number } | Refusal {
	return inTransaction(house.db, () => {
		const intake = readIntake(house, id);
		if (isRefusal(intake)) return intake;
		if (intake.revision !== revision) return CHANGED;
		const judged = judgeIntake(house, intake);
		if (isRefusal(judged)) return judged;
		const first = judged.found.find((one) => !one.mild);
		if (first) return refuse(first.code, first.say, first.at);
		const version = intake.version + 1;
		const now = house.now().toISOString();
		house.db
			.prepare('INSERT INTO intake_versions (intake, version, setting, account, at) VALUES (?, ?, ?, ?, ?)')
			.run(id, version, JSON.stringify(intake.setting), account.id, now);
		house.db
			.prepare("UPDATE intakes SET version = ?, state = 'open', changed_at = ? WHERE id = ?")
			.run(version, now, id);
		return { version };
	});
}

/** Closes it by hand, or opens it again as it was. Cases that are on their way are never touched. */
export function setIntakeState(house: House, id: string, state: 'open' | 'closed'): Refusal | null {
	const intake = readIntake(house, id);
	if (isRefusal(intake)) return intake;
	if (intake.version === 0) return refuse('intake-unfinished', 'It was never opened. Put it in use first.');
	house.db
		.prepare('UPDATE intakes SET state = ?, changed_at = ? WHERE id = ?')
		.run(state, house.now().toISOString(), id);
	return null;
}

/** Throws away one that was never opened. Refuses `intake-used` for any other: cases and packets tell of it. */
export function throwIntakeAway(house: House, id: string): Refusal | null {
	return inTransaction(house.db, () => {
		const intake = readIntake(house, id);
		if (isRefusal(intake)) return intake;
		if (intake.version > 0)
			return refuse('intake-used', 'It was open to visitors, so its record stays. Close it instead.');
		house.db.prepare('DELETE FROM intake_people WHERE intake = ?').run(id);
		house.db.prepare('DELETE FROM intakes WHERE id = ?').run(id);
		return null;
	});
}

export interface IntakeRow {
	id: string;
	slug: string;
	heading: string;
	template: string;
	owner: string;
	state: IntakeState;
	begun: number;
	handed: number;
	changedAt: string;
	/** what is worked on differs from what visitors see */
	ahead: boolean;
}

/** The intakes of an account, of an owner all; what was changed last first. */
export function listIntakes(house: House, account: Account): IntakeRow[] {
	return house.db
		.prepare<{ me: string; all: 0 | 1 }, Omit<IntakeRow, 'ahead'> & { ahead: 0 | 1 }>(
			`SELECT i.id, i.slug, i.setting ->> '$.heading' AS heading, t.title AS template, a.name AS owner, i.state, i.begun, i.handed,
			 i.changed_at AS changedAt,
			 i.version > 0 AND i.setting <> (SELECT v.setting FROM intake_versions v WHERE v.intake = i.id AND v.version = i.version) AS ahead
			 FROM intakes i JOIN templates t ON t.id = i.template JOIN accounts a ON a.id = i.owner
			 WHERE i.owner = @me OR @all = 1 ORDER BY i.changed_at DESC LIMIT 500`
		)
		.all({ me: account.id, all: account.level === 'owner' ? 1 : 0 })
		.map((row) => ({ ...row, ahead: row.ahead === 1 }));
}
