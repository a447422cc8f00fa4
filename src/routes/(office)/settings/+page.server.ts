import { fail } from '@sveltejs/kit';
import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { keepBlob } from '$lib/server/blobs';
import { addHoliday, holidayList, importHolidays, removeHoliday } from '$lib/server/holidays';
import { note } from '$lib/server/office-record';
import { changeOrganisation } from '$lib/server/office-record/settings';
import { trustedRoots } from '$lib/server/keys';
import { organisation } from '$lib/server/settings';
import { markPictureInWorker } from '$lib/press';
import { formIn } from '$lib/server/forms';
import { accountIn, doerIn, proofIn, statusOf } from '$lib/server/web';

export const load = async ({ locals }) => ({
	settings: organisation(house().db),
	me: accountIn(locals),
	proved: locals.session?.proved ?? false,
	zones: Intl.supportedValuesOf('timeZone'),
	mail: house().config.smtp === null ? 'the Mailbox stand-in' : new URL(house().config.smtp!).host,
	holidays: holidayList(house()),
	roots: (await trustedRoots(house())).map((root) => root.name)
});

const noteHolidays = (locals: App.Locals, to: Record<string, unknown>) =>
	note(house(), doerIn(locals), { type: 'SettingsChanged', what: 'public holidays', from: {}, to });

export const actions = {
	organisation: async ({ request, locals }) => {
		const form = await formIn(request);
		const kept = { name: form.text('name').trim(), colour: form.text('colour'), zone: form.text('zone') };
		const seenPages = form.on('seen-pages');
		const exchange = form.on('exchange');
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
		const set = changeOrganisation(house(), doerIn(locals), { ...kept, logo, seenPages, exchange });
		return isRefusal(set)
			? fail(statusOf(set), { form: 'organisation', ...kept, say: set.say, at: set.at })
			: { form: 'organisation', done: true };
	},
	holidays: async ({ request, locals }) => {
		const file = (await formIn(request)).file('calendar');
		const done = !file
			? refuse('file-empty', 'Choose a calendar file (iCalendar, .ics).')
			: file.size > 2 * 1024 * 1024
				? refuse('file-too-large', 'The calendar may have 2 MB at most.')
				: importHolidays(house(), await file.text());
		if (!isRefusal(done)) noteHolidays(locals, { added: done.added });
		return isRefusal(done)
			? fail(statusOf(done), { form: 'holidays', say: done.say })
			: { form: 'holidays', done: true, added: done.added };
	},
	holiday: async ({ request, locals }) => {
		const form = await formIn(request);
		const [day, name] = [form.text('day'), form.text('name')];
		if (form.text('remove') === 'yes') {
			removeHoliday(house(), day);
			noteHolidays(locals, { removed: day });
		} else {
			const no = addHoliday(house(), day, name);
			if (no) return fail(statusOf(no), { form: 'holidays', say: no.say });
			noteHolidays(locals, { added: day });
		}
		return { form: 'holidays', done: true };
	}
};
