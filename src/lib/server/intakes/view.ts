import { isoDay } from '../../core/calendar';
import { askedPlan, type Asking, type Intake, type VisitorView } from '../../core/intake';
import type { Answers } from '../../core/field';
import type { Plan } from '../../core/packet';
import { isRefusal, type Refusal } from '../../core/refusal';
import { accountById } from '../accounts';
import type { House } from '../house';
import { organisation } from '../settings';
import { caseAt, NO_CASE } from './case';
import { formatted } from './formatted';
import { invitedBy, openIntake } from './visiting';

/**
 * What a visitor sees at an intake's address, with the secret of their case or the key of a sheet's link where they have one.
 * @returns a refusal where there is no such page, or nothing of that case is kept
 */
export function visitorView(
	house: House,
	slug: string,
	token: string | null,
	key: string | null
): VisitorView | Refusal {
	const found = openIntake(house, slug);
	if (isRefusal(found)) return found;
	const { intake, no } = found;
	const begun = token === null ? null : caseAt(house, token);
	if (begun && isRefusal(begun)) return begun;
	if (begun && begun.intake !== intake.id) return NO_CASE;
	const { name, zone } = organisation(house.db);
	const owner = accountById(house, intake.owner);
	const setting = begun?.setting ?? found.setting;
	const head = { heading: setting.heading, organisation: name, contact: owner?.email ?? '' };
	// whoever has begun goes on
	if (no && !begun) return { ...head, state: 'closed', say: no.say };
	const plan = begun?.plan ?? askedPlan(found.plan, setting);
	const invited = key === null ? null : invitedBy(house, intake.id, key);
	return {
		...head,
		state: 'open',
		...shownOf(setting, plan),
		door: setting.door.by === 'code' && !begun ? 'code' : null,
		today: isoDay(zone, house.now().toISOString()),
		known: begun?.known ?? (invited ? (JSON.parse(invited.known) as Answers) : {}),
		begun: begun && {
			page: begun.page,
			proved: begun.proved,
			email: begun.email,
			starting: begun.entered?.starting ?? null,
			answers: begun.entered?.answers ?? {},
			handedIn: begun.packet !== null,
			byOffice: begun.byOffice
		},
		invited: invited && { name: invited.name, email: invited.email }
	};
}

/** An intake as its page needs it: without what only the office has to know. */
export function shownOf(setting: Intake, plan: Plan): Pick<Asking, 'setting' | 'html' | 'plan'> {
	const texts = setting.pages.flatMap((page) => page.items.flatMap((item) => (item.is === 'text' ? [item] : [])));
	return {
		setting: { ...setting, door: { by: 'link' }, then: [], frames: [], closed: '' },
		html: {
			'': formatted(setting.text),
			...Object.fromEntries(texts.map((item) => [item.id, formatted(item.text)]))
		},
		plan: asVisitorsSee(plan, setting)
	};
}

/** The plan without what is nobody's business before it is sent: documents, letters, and everybody's names and addresses. */
function asVisitorsSee(plan: Plan, setting: Intake): Plan {
	const { locale } = plan;
	return {
		title: plan.title,
		message: '',
		days: null,
		papers: [],
		attachments: [],
		people: plan.people.map(({ id, role, name, duty, optional, deliver }) => ({
			id,
			name: '',
			email: '',
			duty,
			role: role || name,
			...(optional && { optional }),
			...(deliver && { deliver })
		})),
		stops: plan.stops,
		fields: plan.fields.filter((field) => field.person === setting.starter || field.kind === 'computed'),
		...(locale && { locale })
	};
}
