import { Type } from '@sinclair/typebox';
import { isoDay } from '../../core/calendar';
import { fitsField } from '../packets/plan-border';
import { NamedSchema, askedPlan, walked, type Intake, type Starting, type Way } from '../../core/intake';
import type { Answers } from '../../core/field';
import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { Line } from '../../core/schema';
import { border } from '../border';
import type { House } from '../house';
import { tokenHash } from '../ids';
import { planLookup } from '../packets/act';
import { organisation } from '../settings';
import { versionOf } from './store';

/** A case that a visitor has begun, with the version of its intake and the plan that hold for it. */

export interface Entered {
	starting: Starting;
	answers: Answers;
}

export interface Case {
	id: string;
	intake: string;
	/** as it was when the case began */
	setting: Intake;
	/** the plan that is asked about */
	plan: Plan;
	page: string;
	/** what a sheet said of them */
	known: Answers;
	language: string;
	/** who is at it; '' until they have said so */
	visitor: string;
	/** the address that a code is sent to, or was proved */
	email: string;
	proved: boolean;
	/** kept on the server, once the address is proved */
	entered: Entered | null;
	/** the account of the office that has taken it over */
	takenBy: string | null;
	/** it was reached by that one's link */
	byOffice: boolean;
	packet: string | null;
}

interface Row {
	id: string;
	intake: string;
	version: number;
	plan: string;
	page: string;
	known: string;
	language: string;
	visitor: string;
	email: string;
	entered: string | null;
	proved_at: string | null;
	taken_by: string | null;
	packet: string | null;
	by_office?: 0 | 1 | null;
}

export const NO_CASE = refuse('case-gone', 'What was begun here is not kept any more. Begin again.');

/** The case of a link that a visitor has. */
export function caseAt(house: House, token: string): Case | Refusal {
	const row = house.db
		.prepare<{ hash: string }, Row>(
			`SELECT id, intake, version, plan, page, known, language, visitor, email, entered, proved_at, taken_by, packet,
			 taken_hash = @hash AS by_office
			 FROM cases WHERE token_hash = @hash OR taken_hash = @hash`
		)
		.get({ hash: tokenHash(token) });
	return row ? caseIn(house, row) : NO_CASE;
}

export function caseById(house: House, id: string): Case | Refusal {
	const row = house.db
		.prepare<[string], Row>(
			`SELECT id, intake, version, plan, page, known, language, visitor, email, entered, proved_at, taken_by, packet
			 FROM cases WHERE id = ?`
		)
		.get(id);
	return row ? caseIn(house, row) : NO_CASE;
}

function caseIn(house: House, row: Row): Case | Refusal {
	const setting = versionOf(house, row.intake, row.version);
	if (!setting) return NO_CASE;
	return {
		id: row.id,
		intake: row.intake,
		setting,
		plan: askedPlan(planLookup(house.db)(row.plan), setting),
		page: row.page,
		known: JSON.parse(row.known) as Answers,
		language: row.language,
		visitor: row.visitor,
		email: row.email,
		proved: row.proved_at !== null,
		entered: row.entered === null ? null : (JSON.parse(row.entered) as Entered),
		takenBy: row.taken_by,
		byOffice: row.by_office === 1,
		packet: row.packet
	};
}

const Somebody = Type.Object(
	{
		name: Line(200),
		email: Line(254),
		phone: Type.Optional(Line(40)),
		locale: Type.Optional(Line(10))
	},
	{ additionalProperties: false }
);

const entered = border(
	Type.Object(
		{
			starting: Type.Object(
				{ visitor: Somebody, prepares: Type.Union([Somebody, Type.Null()]), named: NamedSchema },
				{ additionalProperties: false }
			),
			answers: Type.Record(Line(60), Type.Unknown(), { maxProperties: 5000 })
		},
		{ additionalProperties: false }
	)
);

/**
 * What a visitor entered, as it comes from outside: its shape, then each answer by the kind of its field. Answers to fields that this
 * intake does not ask are left out, and no more people are named than the plan has roles to be named.
 */
export function checkedEntered({ plan, setting }: Pick<Case, 'plan' | 'setting'>, wanted: unknown): Entered | Refusal {
	const shape = entered(wanted);
	if (isRefusal(shape)) return shape;
	const answers: Answers = {};
	for (const field of plan.fields) {
		if (field.person !== setting.starter || !Object.hasOwn(shape.answers, field.id)) continue;
		const answer = shape.answers[field.id] as Answers[string];
		if (!fitsField(field, answer))
			return refuse('malformed', `The answer to “${field.label}” is not as it must be.`, field.id);
		answers[field.id] = answer;
	}
	const roles = new Set(
		setting.pages.flatMap((page) => page.items.flatMap((item) => (item.is === 'people' ? item.roles : [])))
	);
	const named = Object.fromEntries(Object.entries(shape.starting.named).filter(([role]) => roles.has(role)));
	return { answers, starting: { ...shape.starting, named } };
}

/** The way that these answers go today. */
export function wayOf(house: House, one: Pick<Case, 'plan' | 'setting' | 'known'>, answers: Answers): Way {
	const today = isoDay(organisation(house.db).zone, house.now().toISOString());
	return walked(one.plan, one.setting, { ...one.known, ...answers }, today, one.known);
}
