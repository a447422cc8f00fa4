import { fail } from '@sveltejs/kit';
import { POWERS, type Power } from '$lib/core/access';
import { isRefusal, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { listAccounts } from '$lib/server/accounts';
import { folderNamed, listFolders, openFolder, removeFolder, setMember } from '$lib/server/folders';
import { formIn } from '$lib/server/forms';
import { doerIn, proofIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => ({
	folders: listFolders(house()),
	// owners see into every folder anyway
	people: listAccounts(house()).filter((one) => !one.closed && one.level !== 'owner'),
	proved: locals.session?.proved ?? false
});

type Event = { request: Request; locals: App.Locals };

/** A deed on one folder; what widens who sees something asks for a proof. */
async function deed(
	{ request, locals }: Event,
	work: (folder: string, form: Awaited<ReturnType<typeof formIn>>) => Refusal | null
) {
	const form = await formIn(request);
	const folder = form.text('folder', 80);
	const no = proofIn(locals) ?? work(folder, form);
	return no ? fail(statusOf(no), { form: 'one', at: folder, say: no.say }) : { form: 'one', at: folder, done: 'Done.' };
}

const powerIn = (text: string): Power | null => POWERS.find((one) => one === text) ?? null;

export const actions = {
	make: async ({ request, locals }) => {
		const name = (await formIn(request)).text('name', 80);
		const made = folderNamed(house(), doerIn(locals), name);
		if (isRefusal(made) || made === '') return fail(422, { form: 'make', name, say: 'Give the folder a name.' });
		return { form: 'make', done: `“${made}” is there, open to the whole office.` };
	},
	open: (event: Event) => deed(event, (folder) => openFolder(house(), doerIn(event.locals), folder, true)),
	close: (event: Event) => deed(event, (folder) => openFolder(house(), doerIn(event.locals), folder, false)),
	member: (event: Event) =>
		deed(event, (folder, form) =>
			setMember(house(), doerIn(event.locals), folder, form.text('account', 40), powerIn(form.text('power', 20)))
		),
	remove: (event: Event) => deed(event, (folder) => removeFolder(house(), doerIn(event.locals), folder))
};
