import { Type } from '@sinclair/typebox';
import { isRefusal } from '../../../core/refusal';
import { targetsOf } from '../../../core/sheet';
import { openRoles, roleName } from '../../../core/template';
import { readySheet } from '../../batches';
import { listTemplates, planForUse } from '../../templates';
import { FileAnswer, operation } from '../operation';
import { pageOf, strict } from '../schemas';
import { TemplateBrief, TemplateNeeds } from '../shapes';

export const BOOK = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
const of = { part: 'template', kind: 'template', doing: 'see' } as const;

export const templates = [
	operation({
		method: 'get',
		path: '/templates',
		right: 'look',
		does: 'Templates that the account may use',
		query: Type.Object({ search: Type.Optional(Type.String({ maxLength: 200 })) }, strict),
		gives: pageOf(TemplateBrief),
		do: ({ house, account, query }) => ({
			items: listTemplates(house, account, { show: 'all', search: query.search ?? '' }).map((one) => ({
				id: one.id,
				title: one.title,
				description: one.description,
				folder: one.folder,
				owner: one.owner,
				version: one.version,
				changedAt: one.changedAt
			})),
			next: null
		})
	}),
	operation({
		method: 'get',
		path: '/templates/{template}',
		right: 'look',
		of,
		does: 'What a template asks for',
		gives: TemplateNeeds,
		do: ({ house, account, part }) => {
			const found = planForUse(house, account, part['template']!);
			if (isRefusal(found)) return found;
			const { plan, title } = found;
			const open = new Set(openRoles(plan).map(({ id }) => id));
			return {
				id: part['template']!,
				title,
				version: plan.from?.[0]?.version ?? 0,
				people: plan.people.map((person) => ({
					role: roleName(person),
					duty: person.duty,
					optional: person.optional === true,
					open: open.has(person.id)
				})),
				answers: targetsOf(plan).flatMap((target) => {
					if (target.what !== 'answer') return [];
					const field = plan.fields.find((one) => one.id === target.field)!;
					const { key, label, kind } = field;
					return [{ key: key || label, label, kind, needed: target.needed, choices: target.choices ?? [] }];
				})
			};
		}
	}),
	operation({
		method: 'get',
		path: '/templates/{template}/sheet',
		right: 'look',
		of,
		does: 'A sheet for it, to be filled in',
		gives: { file: [BOOK] },
		do: async ({ house, account, part }) => {
			const sheet = await readySheet(house, account, part['template']!);
			return isRefusal(sheet) ? sheet : new FileAnswer(sheet.bytes, BOOK, sheet.name);
		}
	})
];
