import { fail } from '@sveltejs/kit';
import { isRefusal, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { correctAddress, packetView, withdraw } from '$lib/server/packets/office';
import { accountIn, orError, statusOf } from '$lib/server/web';

export const load = ({ params, locals }) => {
	const account = accountIn(locals);
	return { packet: orError(packetView(house(), params.id)), account, now: house().now().toISOString() };
};

/** What is handed back to a form that was refused: which one, what stood in it, and the sentence. */
interface Kept {
	form: 'withdraw' | 'correct';
	reason?: string;
	email?: string;
}
const result = (done: object | Refusal, kept: Kept) =>
	isRefusal(done) ? fail(statusOf(done), { ...kept, say: done.say }) : { done: true };

export const actions = {
	withdraw: async ({ params, request, locals }) => {
		const reason = String((await request.formData()).get('reason') ?? '').slice(0, 2000);
		return result(withdraw(house(), accountIn(locals), params.id, reason), { reason, form: 'withdraw' });
	},
	correct: async ({ params, request, locals }) => {
		const form = await request.formData();
		const person = String(form.get('person') ?? '');
		const email = String(form.get('email') ?? '').slice(0, 300);
		return result(correctAddress(house(), accountIn(locals), params.id, person, email), { email, form: 'correct' });
	}
};
