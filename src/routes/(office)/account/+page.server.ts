import { fail } from '@sveltejs/kit';
import { isRefusal, refuse, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import {
	beginCodes,
	changePassword,
	endSessions,
	factorsOf,
	hasFactor,
	newCodes,
	newRecoveryCodes,
	passkeysOf,
	passkeysPossible,
	removeFactors,
	removePasskey,
	safety,
	sessionsOf
} from '$lib/server/accounts';
import { setMorning, wantsMorning } from '$lib/server/morning';
import { formIn } from '$lib/server/forms';
import { accountIn, doerIn, proofIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => {
	const me = accountIn(locals);
	const { db } = house();
	return {
		me,
		factors: factorsOf(db, me.id),
		passkeys: passkeysOf(db, me.id),
		possible: passkeysPossible(house()),
		sessions: sessionsOf(db, me.id),
		here: locals.session?.id ?? '',
		morning: wantsMorning(db, me.id),
		required: safety(db).second.includes(me.level),
		mustSetUp: locals.session?.wants === 'set-up',
		proved: locals.session?.proved ?? false
	};
};

const failed = (form: string, no: Refusal, more: object = {}) =>
	fail(statusOf(no), { form, say: no.say, at: no.at, ...more });

export const actions = {
	password: async ({ request, locals }) => {
		const form = await formIn(request);
		const by = { account: accountIn(locals), address: locals.from.address };
		const no = await changePassword(house(), by, locals.session!.id, form.raw('before'), form.raw('password'));
		return no ? failed('password', no) : { form: 'password', done: true };
	},
	/** What a device needs to make codes. */
	codes: async ({ locals }) => {
		const no = proofIn(locals);
		return no ? failed('codes', no) : { form: 'codes', ...(await newCodes(house(), accountIn(locals))) };
	},
	begin: async ({ request, locals }) => {
		const form = await formIn(request);
		const [secret, code] = [form.text('secret', 64), form.text('code', 20)];
		const made = proofIn(locals) ?? beginCodes(house(), doerIn(locals), accountIn(locals), secret, code);
		return isRefusal(made) ? failed('begin', made) : { form: 'recovery', recovery: made };
	},
	recovery: ({ locals }) => {
		const me = accountIn(locals);
		const no =
			proofIn(locals) ??
			(hasFactor(factorsOf(house().db, me.id)) ? null : refuse('no-factor', 'Set up codes or a passkey first.'));
		return no
			? failed('recovery', no)
			: { form: 'recovery', recovery: newRecoveryCodes(house(), doerIn(locals), me.id) };
	},
	remove: ({ locals }) => {
		const no = proofIn(locals);
		if (no) return failed('codes', no);
		removeFactors(house(), doerIn(locals), accountIn(locals));
		return { form: 'codes', done: true };
	},
	passkey: async ({ request, locals }) => {
		const id = (await formIn(request)).text('id', 2000);
		const no = proofIn(locals);
		if (no) return failed('passkey', no);
		removePasskey(house(), doerIn(locals), accountIn(locals), id);
		return { form: 'passkey', done: true };
	},
	morning: async ({ request, locals }) => {
		const on = (await formIn(request)).text('morning', 5) === 'on';
		setMorning(house(), accountIn(locals), on);
		return { form: 'morning', done: true };
	},
	end: async ({ request, locals }) => {
		const form = await formIn(request);
		const me = accountIn(locals);
		const id = form.text('id');
		endSessions(house(), doerIn(locals), me, id ? { only: id } : { except: locals.session!.id });
		return { form: 'end', done: true };
	}
};
