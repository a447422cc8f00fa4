import { isoDay } from '../calendar';
import {
	dateSettingsFault,
	groupOptions,
	isBlank,
	kindOf,
	live,
	optionsOf,
	prefilled,
	questionOfKey,
	questions,
	ruleFault,
	rulesOf,
	textSettingsFault,
	usesOf,
	type Question
} from '../field';
import { fromShown, keepOnPage, onPage, textNeeds, toShown, type Rect } from '../page';
import { acts, stopOf } from '../route';
import { neverHolds } from './never';
import { EVERYBODY, localeOf, SENDER, type Field, type Plan } from './plan';
import type { Finding } from './preflight';

type Fault = Omit<Finding, 'place'>;

/** All that is wrong with a plan's fields, each with its place and, where there is one, its cure. */
export function checkFields(plan: Plan): Finding[] {
	const found: Finding[] = [];
	const add = (field: Field, faults: (Fault | null)[]) => {
		for (const fault of faults) if (fault) found.push({ ...fault, place: { what: 'field', id: field.id } });
	};
	for (const field of plan.fields)
		add(field, [
			placeFault(plan, field),
			ownerFault(plan, field),
			...ruleFaults(plan, field),
			settingsFault(field) ?? withSay(field, 'settings-wrong', field.kind === 'date' ? dateSettingsFault(field) : null),
			sizeFault(field),
			senderFault(plan, field)
		]);
	for (const question of questions(plan.fields)) add(question[0]!, [twinsFault(plan, question), groupFault(question)]);
	for (const [field, under] of overlaps(plan)) add(field, [overlapFault(plan, field, under)]);
	return found;
}

const called = (field: Field): string => `“${field.label || kindOf(field.kind).name}”`;
const at = (field: Field): string => `${called(field)} on page ${field.page + 1}`;

function withSay(field: Field, code: string, say: string | null): Fault | null {
	return say === null ? null : { code, say: `${at(field)}: ${say}` };
}

/** A cure that changes some fields and leaves all else. */
function cure(say: string, ids: string[], change: (field: Field) => Field): NonNullable<Finding['cure']> {
	return { say, plan: (plan) => ({ ...plan, fields: plan.fields.map((f) => (ids.includes(f.id) ? change(f) : f)) }) };
}

function pageOf(plan: Plan, field: Field) {
	return plan.papers.find((p) => p.id === field.paper)?.pages[field.page];
}

function placeFault(plan: Plan, field: Field): Fault | null {
	const page = pageOf(plan, field);
	if (!page)
		return {
			code: 'field-lost',
			say: `${called(field)} lies on a page that is gone.`,
			cure: { say: 'Remove it', plan: (p) => ({ ...p, fields: p.fields.filter((f) => f.id !== field.id) }) }
		};
	return onPage(page, field.rect)
		? null
		: {
				code: 'field-off-page',
				say: `${called(field)} reaches over the edge of page ${field.page + 1}.`,
				cure: cure('Bring it back', [field.id], (f) => ({
					...f,
					rect: fromShown(page, keepOnPage(page, toShown(page, f.rect)))
				}))
			};
}

function ownerFault(plan: Plan, field: Field): Fault | null {
	const asked = kindOf(field.kind).filledBy === 'person' || kindOf(field.kind).filledBy === 'finishing';
	if (!asked) return null;
	if (field.person === SENDER || (field.person !== null && stopOf(plan, field.person) >= 0)) return null;
	const actors = plan.people.filter((p) => acts(p.duty));
	const only = actors.length === 1 ? actors[0]! : null;
	return {
		code: 'field-without-person',
		say: `${at(field)} belongs to nobody.`,
		...(only && {
			cure: cure(`Give it to ${only.name || 'the only person'}`, [field.id], (f) => ({ ...f, person: only.id }))
		})
	};
}

function ruleFaults(plan: Plan, field: Field): Fault[] {
	const faults: Fault[] = [];
	for (const rule of rulesOf(field)) {
		const wrong = ruleFault(plan, field, rule);
		const off = rule.at === 'showWhen' || rule.at === 'requireWhen' ? rule.at : null;
		const without = off
			? { cure: cure('Take the rule off', [field.id], ({ [off]: _gone, ...rest }) => rest as Field) }
			: {};
		if (wrong) {
			faults.push({ code: wrong.code, say: `${at(field)}: ${wrong.say}`, ...without });
			continue;
		}
		const late = off ? tooEarly(plan, field, usesOf(rule.source)) : null;
		if (late)
			faults.push({
				code: 'rule-too-early',
				say: `${at(field)}: its rule asks for “${late}”, which is answered only later or at the same time.`,
				...without
			});
		else if (rule.at === 'showWhen' && neverHolds(plan, rule.source))
			faults.push({
				code: 'never-shown',
				...(field.required ? {} : { mild: true as const }),
				say: field.required
					? `${at(field)} must be answered, but its rule never lets it be shown.`
					: `${at(field)} can never be shown: nothing fulfils its rule.`,
				...without
			});
	}
	return faults;
}

/** A key whose answer may not be there yet when the field's person has to know whether it is shown. */
function tooEarly(plan: Plan, field: Field, uses: string[], path: string[] = []): string | null {
	if (field.person === null || field.person === EVERYBODY) return null;
	const mine = field.person === SENDER ? -1 : stopOf(plan, field.person);
	for (const key of uses) {
		const question = questionOfKey(plan.fields, key);
		if (!question || path.includes(key)) continue;
		if (question[0]!.kind === 'computed') {
			const deeper = tooEarly(
				plan,
				field,
				question.flatMap((f) => rulesOf(f).flatMap((r) => usesOf(r.source))),
				[...path, key]
			);
			if (deeper) return deeper;
			continue;
		}
		const known = question.some(
			(f) =>
				f.person === field.person ||
				f.person === SENDER ||
				(f.person !== null && stopOf(plan, f.person) >= 0 && stopOf(plan, f.person) < mine)
		);
		if (!known) return key;
	}
	return null;
}

function settingsFault(field: Field): Fault | null {
	switch (field.kind) {
		case 'choice':
			return withSay(
				field,
				'no-options',
				optionsOf(field).length === 0 ? 'the list has nothing to choose from.' : null
			);
		case 'text':
			return withSay(field, 'settings-wrong', textSettingsFault(field));
		case 'note':
			return withSay(
				field,
				'note-empty',
				String(field.settings['text'] ?? '').trim() === '' ? 'the note says nothing.' : null
			);
		case 'image':
			return withSay(field, 'image-empty', field.settings['picture'] ? null : 'no picture has been chosen.');
		case 'number': {
			const { least, most } = field.settings as { least?: string; most?: string };
			return withSay(
				field,
				'settings-wrong',
				least && most && Number(least) > Number(most) ? 'the least is more than the most.' : null
			);
		}
		default:
			return null;
	}
}

/** Whether the box has room for what is known to stand in it, or for its characters. */
function sizeFault(field: Field): Fault | null {
	const { width, height } = field.rect;
	const boxes = field.settings['boxes'];
	const needs =
		field.kind === 'text' && typeof boxes === 'number'
			? { width: boxes * 7, height: 9 }
			: field.kind === 'note' && field.shrink === false
				? textNeeds(String(field.settings['text'] ?? ''), Math.max(width, 20), field.fontSize ?? 11)
				: kindOf(field.kind).drawn(field) === 'text'
					? { width: 12, height: field.shrink === false ? (field.fontSize ?? 11) * 1.15 : 7 }
					: kindOf(field.kind).drawn(field) === 'mark'
						? { width: 20, height: 10 }
						: { width: 0, height: 0 };
	// a page shown on its side swaps the two; whichever way it lies, it must have room one way
	const fits = (w: number, h: number) => w >= needs.width - 0.5 && h >= needs.height - 0.5;
	if (fits(width, height) || fits(height, width)) return null;
	return {
		code: 'box-too-small',
		mild: true,
		say: `${at(field)} is too small for ${field.kind === 'note' ? 'its text' : typeof boxes === 'number' ? `its ${boxes} characters` : 'what is to stand in it'}.`,
		cure: cure('Make it large enough', [field.id], (f) => ({
			...f,
			rect: {
				...f.rect,
				width: Math.max(f.rect.width, needs.width),
				height: Math.max(f.rect.height, needs.height),
				y: f.rect.y - Math.max(0, needs.height - f.rect.height)
			}
		}))
	};
}

function senderFault(plan: Plan, field: Field): Fault | null {
	if (field.person !== SENDER || kindOf(field.kind).filledBy !== 'person') return null;
	const context = { person: { name: '', email: '' }, now: '2000-01-01T00:00:00Z', zone: 'UTC', locale: localeOf(plan) };
	const answers = { ...prefilled(plan, SENDER, context), ...plan.answers };
	const now = live(plan, answers, isoDay('UTC', context.now));
	if (!now.shown(field)) return null;
	const answer = now.answer(field);
	if (answer === undefined || isBlank(answer))
		return now.required(field)
			? { code: 'sender-answer-missing', say: `${at(field)} is yours to fill in before sending.` }
			: null;
	const no = now.check(field, answer);
	return no ? { code: 'sender-answer-wrong', say: `${at(field)}: ${no.say}` } : null;
}

/** Settings of the single button in a group; all others are the question's. */
const OWN = ['value', 'text', 'outline', 'ticked'];

/** What twins must share, so that an answer to one is good for all. */
function shared(field: Field): string {
	const checks = Object.entries(field.settings).filter(([name]) => !OWN.includes(name));
	return JSON.stringify([field.kind, checks.sort()]);
}

function twinsFault(plan: Plan, question: Question): Fault | null {
	const first = question[0]!;
	const others = question.slice(1);
	const kind = kindOf(first.kind);
	if (others.some((f) => shared(f) !== shared(first)))
		return {
			code: 'twins-differ',
			say: `The fields with the key “${first.key}” differ in kind or checks, so one answer can’t be good for all.`,
			cure: cure(
				'Make them like the first',
				others.map((f) => f.id),
				(f) => ({
					...f,
					kind: first.kind,
					required: first.required,
					settings: { ...first.settings, ...(kind.grouped && keep(f.settings, OWN)) }
				})
			)
		};
	if ((kind.signs || kind.filledBy === 'finishing' || kind.grouped) && others.some((f) => f.person !== first.person))
		return {
			code: 'twins-of-several',
			say: `The fields with the key “${first.key}” belong to several people, but ${kind.grouped ? 'a group is one person’s' : 'each must give their own'}.`,
			cure: kind.grouped
				? cure(
						'Give all to the first',
						others.map((f) => f.id),
						(f) => ({ ...f, person: first.person })
					)
				: cure(
						'Part them',
						others.filter((f) => f.person !== first.person).map((f) => f.id),
						(f) => ({ ...f, key: '' })
					)
		};
	return null;
}

function keep(settings: Field['settings'], names: string[]): Field['settings'] {
	return Object.fromEntries(Object.entries(settings).filter(([name]) => names.includes(name)));
}

function groupFault(question: Question): Fault | null {
	const first = question[0]!;
	if (!kindOf(first.kind).grouped) return null;
	const options = groupOptions(question).length;
	if (first.kind === 'pick-one' && options < 2)
		return {
			code: 'group-short',
			say: `${at(first)} leaves nothing to pick: the group needs a second button with a value of its own.`
		};
	const { least = 0, most } = first.settings as { least?: number; most?: number };
	if (least > options)
		return {
			code: 'group-short',
			say: `${at(first)} wants ${least} ticks, but the group has ${options} ${options === 1 ? 'box' : 'boxes'}.`,
			cure: cure(
				`Ask for ${options}`,
				question.map((f) => f.id),
				(f) => ({ ...f, settings: { ...f.settings, least: options } })
			)
		};
	return most !== undefined && most < least
		? { code: 'group-short', say: `${at(first)} wants ${least} ticks at least, but ${most} at most.` }
		: null;
}

/** Kinds that may lie over others: a stamp under a signature, a line through words. */
const LOOSE = ['strike', 'image', 'note'];

/** Pairs of fields that cover each other by more than a tenth of the smaller. Page by page, from left to right. */
function overlaps(plan: Plan): [Field, Field][] {
	const pages = new Map<string, Field[]>();
	for (const field of plan.fields) {
		if (LOOSE.includes(field.kind)) continue;
		const page = `${field.paper} ${field.page}`;
		pages.set(page, [...(pages.get(page) ?? []), field]);
	}
	const found: [Field, Field][] = [];
	for (const fields of pages.values()) {
		const sorted = [...fields].sort((a, b) => a.rect.x - b.rect.x);
		sorted.forEach((a, i) => {
			for (let j = i + 1; j < sorted.length && sorted[j]!.rect.x < a.rect.x + a.rect.width; j++) {
				const b = sorted[j]!;
				// two that appear by rules may be each other's alternative
				if (a.showWhen && b.showWhen) continue;
				if (covered(a.rect, b.rect) > 0.1) found.push([b, a]);
			}
		});
	}
	return found;
}

function covered(a: Rect, b: Rect): number {
	const width = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
	const height = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
	return width <= 0 || height <= 0 ? 0 : (width * height) / Math.min(a.width * a.height, b.width * b.height);
}

function overlapFault(plan: Plan, field: Field, under: Field): Fault {
	const page = pageOf(plan, field);
	return {
		code: 'fields-overlap',
		mild: true,
		say: `${called(field)} lies over ${called(under)} on page ${field.page + 1}.`,
		...(page && {
			cure: cure('Move it below', [field.id], (f) => {
				const shown = toShown(page, f.rect);
				const above = toShown(page, under.rect);
				return { ...f, rect: fromShown(page, keepOnPage(page, { ...shown, top: above.top + above.height + 2 })) };
			})
		})
	};
}
