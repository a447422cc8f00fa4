import { error, fail, redirect } from '@sveltejs/kit';
import { ACT_KINDS } from '$lib/core/notary';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { drawSeal, endNotary, journalOf, keepNotary, notaryById, setSeal } from '$lib/server/notary';
import { doerIn, statusOf } from '$lib/server/web';
import { standInsFor } from '$lib/server/stand-ins';

export const load = ({ params, locals }) => {
	standInsFor(locals);
	const notary = params.id === 'new' ? null : notaryById(house().db, params.id);
	if (!notary && params.id !== 'new') error(404, { message: 'There is no such notary.' });
	return { zones: Intl.supportedValuesOf('timeZone'), notary, journal: notary ? journalOf(house().db, notary.id) : [] };
};

export const actions = {
	keep: async ({ params, request, locals }) => {
		standInsFor(locals);
		const form = await formIn(request);
		const given = {
			name: form.text('name', 120),
			email: form.text('email', 254),
			number: form.text('number', 60),
			jurisdiction: form.text('jurisdiction', 120),
			venue: form.text('venue', 120),
			zone: form.text('zone', 60),
			from: form.text('from', 10),
			until: form.text('until', 10),
			hours: {
				days: [1, 2, 3, 4, 5, 6, 7].filter((day) => form.text(`day${day}`, 3) !== ''),
				from: form.text('opens', 5),
				to: form.text('closes', 5)
			},
			fees: Object.fromEntries(
				ACT_KINDS.flatMap((kind) => {
					const fee = form.text(`fee ${kind}`, 40);
					return fee === '' ? [] : [[kind, fee]];
				})
			)
		};
		const kept = keepNotary(house(), doerIn(locals), given, params.id === 'new' ? null : params.id);
		if (isRefusal(kept)) return fail(statusOf(kept), { say: kept.say, given });
		if (params.id === 'new') await drawSeal(house(), kept.id);
		redirect(303, `/stand-ins/notary/${kept.id}`);
	},
	seal: async ({ params, request, locals }) => {
		standInsFor(locals);
		const file = (await request.formData()).get('seal');
		if (!(file instanceof File) || file.size === 0) return fail(422, { sealSay: 'Choose a picture first.' });
		const no = await setSeal(house(), params.id, new Uint8Array(await file.arrayBuffer()));
		if (no) return fail(statusOf(no), { sealSay: no.say });
		redirect(303, `/stand-ins/notary/${params.id}`);
	},
	chosen: async ({ params, request, locals }) => {
		standInsFor(locals);
		endNotary(house(), doerIn(locals), params.id, (await formIn(request)).text('ended', 3) === 'yes');
		redirect(303, `/stand-ins/notary/${params.id}`);
	}
};
