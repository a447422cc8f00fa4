import { fail } from '@sveltejs/kit';
import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { hasBlob, keepBlob } from '$lib/server/blobs';
import { changeOrganisation } from '$lib/server/office-record/settings';
import { organisation, organisationIn, type Organisation } from '$lib/server/settings';
import { markPictureInWorker } from '$lib/press';
import { formIn } from '$lib/server/forms';
import { accountIn, doerIn, proofIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => ({
	settings: organisation(house().db),
	me: accountIn(locals),
	proved: locals.session?.proved ?? false,
	zones: Intl.supportedValuesOf('timeZone')
});

const CALLED: Record<keyof Organisation, string> = {
	name: 'name',
	colour: 'colour',
	logo: 'logo',
	zone: 'time zone',
	seenPages: 'time in view',
	stumbles: 'counting where people stumble',
	exchange: 'exchanging documents',
	sheetsIn: 'sheets dropped into folders',
	pace: 'pace of batches'
};
const changedOf = (before: Organisation, now: Organisation): string[] =>
	(Object.keys(CALLED) as (keyof Organisation)[])
		.filter((name) => (before[name] ?? false) !== (now[name] ?? false))
		.map((name) => CALLED[name]);

export const actions = {
	organisation: async ({ request, locals }) => {
		const form = await formIn(request);
		const kept = { name: form.text('name').trim(), colour: form.text('colour'), zone: form.text('zone') };
		const seenPages = form.on('seen-pages');
		const stumbles = form.on('stumbles');
		const exchange = form.on('exchange');
		const sheetsIn = form.on('sheetsIn');
		const pace = Math.round(Number(form.text('pace')));
		let { logo } = organisation(house().db);
		const file = form.file('logo');
		if (form.on('remove-logo')) logo = '';
		else if (file) {
			const picture =
				file.size > 5 * 1024 * 1024
					? refuse('file-too-large', 'The logo may have 5 MB at most.')
					: await markPictureInWorker(new Uint8Array(await file.arrayBuffer()));
			if (isRefusal(picture))
				return fail(statusOf(picture), { form: 'organisation', ...kept, say: picture.say, at: 'logo' });
			logo = keepBlob(house().db, picture.bytes, 'image/png', house().now(), picture.digest);
		}
		const before = organisation(house().db);
		// another name means other keys
		const no = kept.name !== before.name ? proofIn(locals) : null;
		if (no) return fail(statusOf(no), { form: 'organisation', ...kept, say: no.say, prove: true });
		const set = changeOrganisation(house(), doerIn(locals), {
			...kept,
			logo,
			seenPages,
			stumbles,
			exchange,
			sheetsIn,
			...(pace > 0 && { pace })
		});
		return isRefusal(set)
			? fail(statusOf(set), { form: 'organisation', ...kept, say: set.say, at: set.at })
			: { form: 'organisation', done: true, before, changed: changedOf(before, set) };
	},
	/** As it was before it was changed just now. */
	back: async ({ request, locals }) => {
		const { db } = house();
		const wanted = organisationIn((await formIn(request)).lines('before'));
		const no = isRefusal(wanted)
			? wanted
			: wanted.logo !== '' && !hasBlob(db, wanted.logo)
				? refuse('no-logo', 'That logo is not here any more.')
				: wanted.name !== organisation(db).name
					? proofIn(locals)
					: null;
		if (no) return fail(statusOf(no), { form: 'organisation', say: no.say });
		const set = changeOrganisation(house(), doerIn(locals), wanted as Organisation);
		return isRefusal(set) ? fail(statusOf(set), { form: 'organisation', say: set.say }) : { form: 'organisation' };
	}
};
