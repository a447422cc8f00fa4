import { isRefusal, type Refusal } from '../../core/refusal';
import { targetsOf, type Target } from '../../core/sheet';
import { kindOf } from '../../core/field';
import type { Plan } from '../../core/packet';
import { readyBookInWorker } from '../../press';
import type { Account } from '../accounts';
import type { House } from '../house';
import { planForUse } from '../templates';

/** A sheet for a template, to be filled in: a head for each thing that it needs, an example, and what each column takes. */
export async function readySheet(
	house: House,
	account: Account,
	template: string
): Promise<{ bytes: Uint8Array; name: string } | Refusal> {
	const found = planForUse(house, account, template);
	if (isRefusal(found)) return found;
	// what a row may add besides is told, but has no column of its own
	const columns = targetsOf(found.plan).filter(
		(target) => target.needed || target.what === 'answer' || isReached(target)
	);
	const bytes = await readyBookInWorker({
		title: found.title,
		columns: columns.map((target) => ({
			head: target.name,
			needed: target.needed,
			...told(target, found.plan),
			...(target.choices && { choices: target.choices })
		}))
	});
	return { bytes, name: `${found.title}.xlsx` };
}

const isReached = (target: Target) => target.what === 'person' && ['name', 'email'].includes(target.part);

function told(target: Target, plan: Plan): { example: string; takes: string } {
	if (target.choices)
		return { example: target.choices[0] ?? '', takes: `One of: ${target.choices.slice(0, 12).join(', ')}.` };
	if (target.what === 'person') {
		if (target.part === 'email') return { example: 'somebody@post.example', takes: 'An e-mail address.' };
		if (target.part === 'phone')
			return { example: '+44 7700 900123', takes: 'A telephone number with its country code.' };
		return {
			example: 'Maren Lindqvist',
			takes: 'The whole name. It may also stand in two columns, First name and Surname.'
		};
	}
	if (target.what === 'answer') {
		const { kind, name } = kindOf(plan.fields.find((field) => field.id === target.field)!.kind);
		if (kind === 'date')
			return { example: '2026-12-24', takes: 'A day, as 2026-12-24 or as your spreadsheet writes it.' };
		if (kind === 'number') return { example: '120', takes: 'A number.' };
		return { example: '', takes: `What the field “${target.name}” takes: ${name}.` };
	}
	return { example: '', takes: 'Text.' };
}
