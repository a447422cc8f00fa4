import { fail } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { identityLook, judgeHeld, showPictures } from '$lib/server/identity';
import { accountIn, orError, statusOf } from '$lib/server/web';

export const load = ({ params, locals }) => ({
	look: orError(identityLook(house(), accountIn(locals), params.id, params.person))
});

const HOWS = ['let through', 'another try', 'refuse'] as const;

export const actions = {
	/** The pictures are shown for a while; that is in the record. */
	show: async ({ params, request, locals }) => {
		const of = (await formIn(request)).text('try', 60);
		const shown = showPictures(house(), accountIn(locals), params.id, of);
		return isRefusal(shown) ? fail(statusOf(shown), { form: 'show', say: shown.say }) : { form: 'show', of, ...shown };
	},
	judge: async ({ params, request, locals }) => {
		const form = await formIn(request);
		const how = HOWS.find((one) => one === form.text('how')) ?? 'another try';
		const said = { note: form.lines('note'), word: form.lines('word') };
		const done = judgeHeld(house(), accountIn(locals), params.id, params.person, how, said);
		return isRefusal(done) ? fail(statusOf(done), { form: 'judge', kept: said, say: done.say }) : { form: 'judge' };
	}
};
