import { fail, redirect } from '@sveltejs/kit';
import { isRefusal, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { permitted } from '$lib/server/access';
import { file } from '$lib/server/filing';
import { foldersFor } from '$lib/server/folders';
import { beginCorrection, correctionId, leaveCorrection } from '$lib/server/packets/correcting';
import {
	answerWording,
	correctAddress,
	correctPhone,
	moveDeadline,
	moveToFolder,
	newVersion,
	nudge,
	nudgeAll,
	withdraw
} from '$lib/server/packets/office';
import { forecastOf } from '$lib/server/pace';
import { packetView } from '$lib/server/packets/packet-view';
import { formIn } from '$lib/server/forms';
import { judgeHeld } from '$lib/server/identity';
import { appoint } from '$lib/server/notary';
import { accountIn, orError, statusOf } from '$lib/server/web';

export const load = ({ params, locals }) => {
	const account = accountIn(locals);
	const may = (doing: 'change' | 'judge') => permitted(house().db, account, doing, 'packet', params.id);
	const change = may('change');
	return {
		packet: orError(packetView(house(), params.id)),
		account,
		likely: forecastOf(house().db, params.id),
		may: { change, judge: may('judge') },
		folders: change ? foldersFor(house(), account) : [],
		now: house().now().toISOString()
	};
};

/** What is handed back to a form that was refused: which one, of whom, what stood in it, and the sentence. */
const result = (done: object | Refusal, form: string, kept: Record<string, string> = {}) =>
	isRefusal(done) ? fail(statusOf(done), { form, kept, say: done.say }) : { form, done: true };

export const actions = {
	withdraw: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const reason = form.lines('reason');
		return result(withdraw(house(), accountIn(locals), params.id, reason), 'withdraw', { reason });
	},
	/** what is out is withdrawn first */
	put: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const reason = form.lines('reason');
		const to = form.text('to', 10) === 'archive' ? 'archive' : 'bin';
		return result(file(house(), accountIn(locals), params.id, { do: to, reason }), 'put', { reason });
	},
	version: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const reason = form.lines('reason');
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
		const form = await formIn(request);
		const [person, email] = [form.text('person', 254), form.text('email', 254)];
		return result(correctAddress(house(), accountIn(locals), params.id, person, email), 'correct', { person, email });
	},
	phone: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const [person, phone] = [form.text('person', 254), form.text('phone', 254)];
		return result(correctPhone(house(), accountIn(locals), params.id, person, phone), 'phone', { person, phone });
	},
	nudge: async ({ params, request, locals }) => {
		const person = (await formIn(request)).text('person');
		return person === ''
			? result(nudgeAll(house(), accountIn(locals), params.id), 'nudge')
			: result(nudge(house(), accountIn(locals), params.id, person), 'nudge', { person });
	},
	release: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const how = form.text('how', 254) === 'let through' ? 'let through' : 'another try';
		return result(
			judgeHeld(house(), accountIn(locals), params.id, form.text('person', 254), how, { note: form.lines('note') }),
			'release',
			{
				note: form.lines('note')
			}
		);
	},
	deadline: async ({ params, request, locals }) => {
		const day = (await formIn(request)).text('day');
		return result(moveDeadline(house(), accountIn(locals), params.id, day), 'deadline', { day });
	},
	appoint: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const [starts, minutes] = [form.text('starts', 40), form.text('minutes', 3)];
		return result(appoint(house(), accountIn(locals), params.id, starts, Number(minutes) || 30), 'appoint', {
			starts,
			minutes
		});
	},
	folder: async ({ params, request, locals }) => {
		const folder = (await formIn(request)).text('folder', 80);
		return result(moveToFolder(house(), accountIn(locals), params.id, folder), 'folder', { folder });
	},
	wording: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const [wish, say] = [form.text('wish', 254), form.lines('say')];
		return result(answerWording(house(), accountIn(locals), params.id, wish, say), 'wording', { wish, say });
	}
};
