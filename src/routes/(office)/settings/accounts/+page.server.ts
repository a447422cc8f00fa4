import { fail } from '@sveltejs/kit';
import { isRefusal, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import {
	accountById,
	changeLevel,
	closeAccount,
	endSessions,
	inviteAccount,
	inviteAgain,
	LEVELS,
	listAccounts,
	removeFactors,
	type Level
} from '$lib/server/accounts';
import { formIn } from '$lib/server/forms';
import { accountIn, doerIn, proofIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => ({
	people: listAccounts(house()),
	me: accountIn(locals),
	proved: locals.session?.proved ?? false
});

const levelIn = (text: string): Level | null => LEVELS.find((one) => one === text) ?? null;
const failed = (form: string, no: Refusal, more: object = {}) =>
	fail(statusOf(no), { form, say: no.say, at: no.at, ...more });

/** A deed on one account, after a proof. */
async function deed(
	{ request, locals }: { request: Request; locals: App.Locals },
	done: string,
	work: (id: string, level: Level | null) => Refusal | null
) {
	const form = await formIn(request);
	const id = form.text('id');
	const no = proofIn(locals) ?? work(id, levelIn(form.text('level')));
	return no ? failed('one', { ...no, at: id }) : { form: 'one', at: id, done };
}

export const actions = {
	invite: async ({ request, locals }) => {
		const form = await formIn(request);
		const kept = { newName: form.text('name'), newEmail: form.text('email', 254), level: form.text('level') };
		const no = proofIn(locals);
		if (no) return failed('invite', no, kept);
		const level = levelIn(kept.level);
		if (!level) return fail(422, { form: 'invite', ...kept, say: 'Choose what they may do.', at: 'level' });
		const made = inviteAccount(house(), doerIn(locals), { name: kept.newName, email: kept.newEmail, level });
		return isRefusal(made) ? failed('invite', made, kept) : { form: 'invite', done: `${made.email} gets a letter.` };
	},
	again: (event) =>
		deed(event, 'The letter goes again.', (id) => {
			const done = inviteAgain(house(), doerIn(event.locals), id);
			return isRefusal(done) ? done : null;
		}),
	level: (event) =>
		deed(event, 'Changed.', (id, level) => (level ? changeLevel(house(), doerIn(event.locals), id, level) : null)),
	factors: (event) =>
		deed(event, 'Taken away.', (id) => {
			const account = accountById(house(), id);
			if (account) removeFactors(house(), doerIn(event.locals), account);
			return null;
		}),
	sessions: (event) =>
		deed(event, 'Signed out everywhere.', (id) => {
			const account = accountById(house(), id);
			if (account) endSessions(house(), doerIn(event.locals), account, { except: '' });
			return null;
		}),
	close: (event) => deed(event, 'Closed.', (id) => closeAccount(house(), doerIn(event.locals), id))
};
