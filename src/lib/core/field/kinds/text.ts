import { Type } from '@sinclair/typebox';
import { refuse, refuseWith } from '../../refusal';
import { isText, TextAnswer } from '../answer';
import {
	checkPattern,
	COUNTRIES,
	ownPatternFault,
	PATTERNS,
	samplesOfPattern,
	type Country,
	type Pattern
} from '../formats/pattern';
import { closed, defineKind } from '../kind';
import type { Field } from '../../packet/plan';
import type { RuleWorld } from '../../rule';

const LONGEST = 2000;
const Length = Type.Optional(Type.Integer({ minimum: 1, maximum: LONGEST }));

/** Free text, on one line or several, or so many characters in a box each. */
export const text = defineKind({
	kind: 'text',
	name: 'text',
	letter: 'T',
	size: { width: 180, height: 20 },
	settings: Type.Object(
		{
			several: Type.Optional(Type.Boolean()),
			least: Length,
			most: Length,
			/** exactly so many characters, each in a box of its own */
			boxes: Type.Optional(Type.Integer({ minimum: 1, maximum: 60 })),
			pattern: Type.Optional(Type.Union(PATTERNS.map((p) => Type.Literal(p)))),
			country: Type.Optional(Type.Union(COUNTRIES.map((c) => Type.Literal(c)))),
			own: Type.Optional(Type.String({ maxLength: 300 })),
			/** what stands there to begin with */
			default: Type.Optional(Type.String({ maxLength: LONGEST }))
		},
		closed
	),
	answer: TextAnswer,
	filledBy: 'person',
	is: isText,
	wrong: refuse('text-wrong', 'This place takes text.'),
	control: (field) => (field.settings['several'] === true ? 'lines' : 'line'),
	drawn: (field) => (typeof field.settings['boxes'] === 'number' ? 'letters' : 'text'),
	prefill: (field) =>
		typeof field.settings['default'] === 'string' && field.settings['default'] !== ''
			? { text: field.settings['default'] }
			: null,
	check: (field, answer) => {
		const { least, most = LONGEST, boxes, pattern } = limitsOf(field);
		const length = [...answer.text].length;
		if (field.required && answer.text.trim() === '') return refuse('text-empty', 'Write something here.');
		if (answer.text === '') return null;
		if (boxes !== undefined && length !== boxes)
			return refuseWith('text-exact', `${boxes} characters exactly; this has ${length}.`, { most: boxes, length });
		if (length > most)
			return refuseWith('text-long', `${most} characters at most; this has ${length}.`, { most, length });
		if (least !== undefined && length < least)
			return refuseWith('text-short', `${least} characters at least; this has ${length}.`, { least, length });
		if (field.settings['several'] !== true && /[\r\n]/.test(answer.text))
			return refuse('text-lines', 'This place has one line only.');
		return pattern
			? checkPattern(
					answer.text,
					pattern,
					(field.settings['country'] as Country | undefined) ?? 'GB',
					String(field.settings['own'] ?? '')
				)
			: null;
	},
	shown: (_field, answer) => answer.text,
	read: (field, typed) => {
		const { boxes } = limitsOf(field);
		return { text: boxes === undefined ? typed : inBoxes(typed, boxes) };
	},
	value: (_question, answer) => answer.text,
	data: (answer) => answer.text,
	sample: (field, context) => {
		const { boxes, most, least, pattern } = limitsOf(field);
		const country = (field.settings['country'] as Country | undefined) ?? 'GB';
		const question = { question: [field], locale: context.locale, world: NOTHING };
		const starts = pattern ? samplesOfPattern(pattern, country) : ['As agreed on the phone'];
		// one that its own check lets pass: as it is, or as long as it must be
		for (const start of starts) {
			const bare = boxes === undefined ? start : inBoxes(start, boxes);
			const length = boxes ?? Math.min(most ?? Infinity, Math.max(least ?? 0, bare.length));
			for (const one of [bare, bare.repeat(Math.ceil(length / Math.max(1, bare.length))).slice(0, length)])
				if (one !== '' && text.check(field, { text: one }, question) === null) return { text: one };
		}
		return null;
	}
});

/** A sample depends on nothing else that was answered. */
const NOTHING: RuleWorld = { today: '', value: () => null };

/** What is typed in groups and fits its boxes without the spaces between them, as account numbers are. */
function inBoxes(typed: string, boxes: number): string {
	const bare = typed.replace(/\s/g, '');
	return [...typed].length > boxes && [...bare].length === boxes ? bare : typed;
}

function limitsOf(field: Field): { least?: number; most?: number; boxes?: number; pattern?: Pattern } {
	const { least, most, boxes, pattern } = field.settings as Record<string, unknown>;
	return {
		...(typeof least === 'number' && { least }),
		...(typeof most === 'number' && { most }),
		...(typeof boxes === 'number' && { boxes }),
		...(typeof pattern === 'string' && { pattern: pattern as Pattern })
	};
}

/** What is wrong with a text field's own settings, in a sentence; null where nothing is. */
export function textSettingsFault(field: Field): string | null {
	const { least, most, pattern } = limitsOf(field);
	if (least !== undefined && most !== undefined && least > most) return 'The least length is more than the most.';
	if (pattern !== 'own') return null;
	return ownPatternFault(String(field.settings['own'] ?? ''))?.say ?? null;
}
