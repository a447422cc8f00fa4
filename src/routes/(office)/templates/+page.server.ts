import { fail, redirect } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import { isRefusal, type Refusal } from '$lib/core/refusal';
import { emptyPlan } from '$lib/core/packet';
import { house } from '$lib/server';
import { listAccounts } from '$lib/server/accounts';
import { formIn, type Form } from '$lib/server/forms';
import { listSettings } from '$lib/server/lists';
import { border } from '$lib/server/border';
import {
	binTemplate,
	bringBack,
	describeTemplate,
	duplicateTemplate,
	foldersOf,
	listTemplates,
	mayChange,
	newTemplate,
	readTemplate,
	SHARED,
	sharesOf,
	SHOWN,
	versionsOf,
	workingCopy,
	type Shown
} from '$lib/server/templates';
import { courseOfTemplate, stumblesOf, usually } from '$lib/server/pace';
import { accountIn, orError, statusOf } from '$lib/server/web';

export const load = ({ url, locals }) => {
	const account = accountIn(locals);
	const asked = url.searchParams.get('show') ?? 'all';
	const show: Shown = (SHOWN as readonly string[]).includes(asked) ? (asked as Shown) : 'all';
	const folder = (url.searchParams.get('folder') ?? '').slice(0, 80);
	const search = (url.searchParams.get('q') ?? '').slice(0, 200);
	const usual = usually(house());
	const rows = listTemplates(house(), account, { show, folder, search }).map((row) => ({
		...row,
		usualHours: usual(row.id)
	}));
	const id = url.searchParams.get('id') ?? rows[0]?.id ?? '';
	const template = id === '' ? null : readTemplate(house(), account, id);
	const versions = template === null || isRefusal(template) ? [] : versionsOf(house(), template.id);
	const chosen =
		template === null || isRefusal(template)
			? null
			: {
					...template,
					mayChange: mayChange(account, template),
					versions,
					course: courseOfTemplate(
						house(),
						template.id,
						template.plan,
						versions.map(({ version }) => version)
					),
					stumbles: template.plan ? stumblesOf(house(), template.id, template.plan) : [],
					accounts: sharesOf(house(), template.id)
				};
	return {
		rows,
		show,
		folder,
		search,
		settings: listSettings(house(), account, 'templates'),
		folders: foldersOf(house(), account),
		chosen,
		offices: listAccounts(house()).filter((a) => !a.closed && a.level !== 'viewer' && a.id !== account.id),
		account,
		now: house().now().toISOString()
	};
};

const id = (form: Form) => form.text('id');
const said = (no: Refusal | null) => (no ? fail(statusOf(no), { say: no.say }) : { done: true });

const aboutBorder = border(
	Type.Object(
		{
			description: Type.String({ maxLength: 1000 }),
			folder: Type.String({ maxLength: 80 }),
			shared: Type.Union(SHARED.map((one) => Type.Literal(one))),
			accounts: Type.Array(Type.String({ maxLength: 40 }), { maxItems: 200 }),
			owner: Type.String({ maxLength: 40 })
		},
		{ additionalProperties: false }
	)
);

export const actions = {
	new: ({ locals }) => redirect(303, `/bench/${newTemplate(house(), accountIn(locals), emptyPlan(), '').id}`),
	change: async ({ request, locals }) =>
		redirect(303, `/bench/${orError(workingCopy(house(), accountIn(locals), id(await formIn(request)))).id}`),
	duplicate: async ({ request, locals }) =>
		redirect(303, `/bench/${orError(duplicateTemplate(house(), accountIn(locals), id(await formIn(request)))).id}`),
	describe: async ({ request, locals }) => {
		const form = await formIn(request);
		const about = aboutBorder({
			description: form.lines('description'),
			folder: form.text('folder'),
			shared: form.text('shared') || 'owner',
			accounts: form.all('account'),
			owner: form.text('owner')
		});
		if (isRefusal(about)) return said(about);
		return said(describeTemplate(house(), accountIn(locals), id(form), about, locals.from.address));
	},
	bin: async ({ request, locals }) => said(binTemplate(house(), accountIn(locals), id(await formIn(request)), true)),
	restore: async ({ request, locals }) =>
		said(binTemplate(house(), accountIn(locals), id(await formIn(request)), false)),
	bringBack: async ({ request, locals }) => {
		const form = await formIn(request);
		const done = bringBack(house(), accountIn(locals), id(form), Number(form.text('version')));
		return said(isRefusal(done) ? done : null);
	}
};
