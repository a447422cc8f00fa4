import { fail, redirect } from '@sveltejs/kit';
import { isRefusal, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { beginCorrection, correctionId, leaveCorrection } from '$lib/server/packets/correcting';
import {
	answerWording,
	correctAddress,
	correctPhone,
	moveDeadline,
	newVersion,
	nudge,
	nudgeAll,
	release,
	withdraw
} from '$lib/server/packets/office';
import { packetView } from '$lib/server/packets/packet-view';
import { accountIn, orError, statusOf } from '$lib/server/web';

export const load = ({ params, locals }) => {
	const account = accountIn(locals);
	return { packet: orError(packetView(house(), params.id)), account, now: house().now().toISOString() };
};

/** The texts of a form, cut to what a form of ours can hold. */
async function textsOf(request: Request): Promise<(name: string) => string> {
	const form = await request.formData();
	return (name) => String(form.get(name) ?? '').slice(0, 2000);
}

/** What is handed back to a form that was refused: which one, of whom, what stood in it, and the sentence. */
const result = (done: object | Refusal, form: string, kept: Record<string, string> = {}) =>
	isRefusal(done) ? fail(statusOf(done), { form, kept, say: done.say }) : { form, done: true };

export const actions = {
	withdraw: async ({ params, request, locals }) => {
		const text = await textsOf(request);
		const reason = text('reason');
		return result(withdraw(house(), accountIn(locals), params.id, reason), 'withdraw', { reason });
	},
	version: async ({ params, request, locals }) => {
		const text = await textsOf(request);
		const reason = text('reason');
		const draft = newVersion(house(), accountIn(locals), params.id, reason);
		if (isRefusal(draft)) return result(draft, 'version', { reason });
		redirect(303, `/bench/${draft.id}`);
	},
	'begin-correction': ({ params, locals }) => {
		const draft = beginCorrection(house(), accountIn(locals), params.id);
		if (isRefusal(draft)) return result(draft, 'begin-correction');
		redirect(303, `/bench/${draft.id}`);
	},
	'leave-correction': ({ params, locals }) => {
		const draft = correctionId(house(), params.id);
		return result((draft && leaveCorrection(house(), accountIn(locals), draft)) || {}, 'leave-correction');
	},
	correct: async ({ params, request, locals }) => {
		const text = await textsOf(request);
		const [person, email] = [text('person'), text('email')];
		return result(correctAddress(house(), accountIn(locals), params.id, person, email), 'correct', { person, email });
	},
	phone: async ({ params, request, locals }) => {
		const text = await textsOf(request);
		const [person, phone] = [text('person'), text('phone')];
		return result(correctPhone(house(), accountIn(locals), params.id, person, phone), 'phone', { person, phone });
	},
	nudge: async ({ params, request, locals }) => {
		const person = (await textsOf(request))('person');
		return person === ''
			? result(nudgeAll(house(), accountIn(locals), params.id), 'nudge')
			: result(nudge(house(), accountIn(locals), params.id, person), 'nudge', { person });
	},
	release: async ({ params, request, locals }) => {
		const text = await textsOf(request);
		const how = text('how') === 'let through' ? 'let through' : 'another try';
		return result(release(house(), accountIn(locals), params.id, text('person'), how, text('note')), 'release', {
			note: text('note')
		});
	},
	deadline: async ({ params, request, locals }) => {
		const day = (await textsOf(request))('day');
		return result(moveDeadline(house(), accountIn(locals), params.id, day), 'deadline', { day });
	},
	wording: async ({ params, request, locals }) => {
		const text = await textsOf(request);
		const [wish, say] = [text('wish'), text('say')];
		return result(answerWording(house(), accountIn(locals), params.id, wish, say), 'wording', { wish, say });
	}
};
