import { Type } from '@sinclair/typebox';
import { Line } from '../../core/schema';
import { keyFault, KINDS, type Answer, type Answers } from '../../core/field';
import type { Given } from '../../core/template';
import { CheckSchema, PlanSchema, type Field, type Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { border } from '../border';

const whole = border(PlanSchema);
const settings = new Map(KINDS.map((kind) => [kind.kind, border(kind.settings)]));
const answers = new Map(KINDS.map((kind) => [kind.kind, border(kind.answer)]));

/**
 * A plan as it comes from outside: its shape, then each field's settings by its kind, then the sender's answers by the
 * kinds of their fields. Refuses `malformed`, saying which field it is about.
 */
export function checkedPlan(wanted: unknown): Plan | Refusal {
	const odd = oddKey(wanted);
	if (odd) return odd;
	const plan = whole(wanted);
	if (isRefusal(plan)) return plan;
	for (const field of plan.fields) {
		const checked = settings.get(field.kind)!(field.settings);
		if (isRefusal(checked)) return { ...checked, say: `“${field.label || field.kind}”: ${checked.say}`, at: field.id };
	}
	for (const [id, answer] of Object.entries(plan.answers ?? {})) {
		const field = plan.fields.find((f) => f.id === id);
		if (!field) continue;
		const checked = answers.get(field.kind)!(answer);
		if (isRefusal(checked)) return { ...checked, say: `The answer to “${field.label}”: ${checked.say}`, at: id };
	}
	return plan;
}

/** Whether an answer is of the shape that a field's kind takes; one from before a correction may not be. */
export function fitsField(field: Field, answer: Answer): boolean {
	return !isRefusal(answers.get(field.kind)!(answer));
}

const given = border(
	Type.Object(
		{
			title: Type.Optional(Line(200)),
			people: Type.Optional(
				Type.Record(
					Line(40),
					Type.Union([
						Type.Object(
							{
								name: Line(200),
								email: Line(254),
								phone: Type.Optional(Line(40)),
								check: Type.Optional(CheckSchema)
							},
							{ additionalProperties: false }
						),
						Type.Null()
					])
				)
			),
			answers: Type.Optional(Type.Record(Line(40), Type.Unknown()))
		},
		{ additionalProperties: false }
	)
);

/** What is given when a template is used, as it comes from outside: its shape, then each answer by its field's kind. */
export function checkedGiven(plan: Plan, wanted: unknown): Given | Refusal {
	const shape = given(wanted);
	if (isRefusal(shape)) return shape;
	const answered: Answers = {};
	for (const [id, answer] of Object.entries(shape.answers ?? {})) {
		const field = plan.fields.find((f) => f.id === id);
		if (!field) return refuse('no-field', 'One of these answers is for a field that the template has not.', id);
		const checked = answers.get(field.kind)!(answer);
		if (isRefusal(checked)) return { ...checked, say: `The answer to “${field.label}”: ${checked.say}`, at: id };
		answered[id] = checked as Answer;
	}
	return {
		...(shape.title !== undefined && { title: shape.title }),
		...(shape.people && { people: shape.people }),
		answers: answered
	};
}

/** A key with odd letters is said as what it is, before the schema says it in its own way. */
function oddKey(wanted: unknown): Refusal | null {
	const fields = (wanted as { fields?: unknown })?.fields;
	if (!Array.isArray(fields)) return null;
	for (const field of fields as { key?: unknown; id?: unknown }[]) {
		const say = typeof field?.key === 'string' ? keyFault(field.key) : null;
		if (say) return refuse('key-odd', say, typeof field.id === 'string' ? field.id : undefined);
	}
	return null;
}
