import { fail } from '@sveltejs/kit';
import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { addAccount, closeAccount, LEVELS, listAccounts, type Level } from '$lib/server/accounts';
import { keepBlob } from '$lib/server/blobs';
import { addHoliday, holidayList, importHolidays, removeHoliday } from '$lib/server/holidays';
import { trustedRoots } from '$lib/server/keys';
import { organisation, setOrganisation } from '$lib/server/settings';
import { markPictureInWorker } from '$lib/press';
import { accountIn, statusOf } from '$lib/server/web';

export const load = async ({ locals }) => ({
	settings: organisation(house().db),
	people: listAccounts(house()),
	me: accountIn(locals),
	zones: Intl.supportedValuesOf('timeZone'),
	mail: house().config.smtp === null ? 'the Mailbox stand-in' : new URL(house().config.smtp!).host,
	holidays: holidayList(house()),
	roots: (await trustedRoots(house())).map((root) => root.name)
});

export const actions = {
	organisation: async ({ request }) => {
		const form = await request.formData();
		const text = (name: string) => String(form.get(name) ?? '').slice(0, 200);
		const kept = { name: text('name').trim(), colour: text('colour'), zone: text('zone') };
		const seenPages = form.get('seen-pages') === 'on';
		const exchange = form.get('exchange') === 'on';
		let { logo } = organisation(house().db);
		const file = form.get('logo');
		if (form.get('remove-logo') === 'on') logo = '';
		else if (file instanceof File && file.size > 0) {
			const picture =
				file.size > 5 * 1024 * 1024
					? refuse('file-too-large', 'The logo may have 5 MB at most.')
					: await markPictureInWorker(new Uint8Array(await file.arrayBuffer()));
			if (isRefusal(picture))
				return fail(statusOf(picture), { form: 'organisation', ...kept, say: picture.say, at: 'logo' });
			logo = keepBlob(house().db, picture.bytes, 'image/png', house().now(), picture.digest);
		}
		const set = setOrganisation(house().db, { ...kept, logo, seenPages, exchange });
		return isRefusal(set)
			? fail(statusOf(set), { form: 'organisation', ...kept, say: set.say, at: set.at })
			: { form: 'organisation', done: true };
	},
	holidays: async ({ request }) => {
		const file = (await request.formData()).get('calendar');
		const done =
			!(file instanceof File) || file.size === 0
				? refuse('file-empty', 'Choose a calendar file (iCalendar, .ics).')
				: file.size > 2 * 1024 * 1024
					? refuse('file-too-large', 'The calendar may have 2 MB at most.')
					: importHolidays(house(), await file.text());
		return isRefusal(done)
			? fail(statusOf(done), { form: 'holidays', say: done.say })
			: { form: 'holidays', done: true, added: done.added };
	},
	holiday: async ({ request }) => {
		const form = await request.formData();
		const [day, name] = [String(form.get('day') ?? ''), String(form.get('name') ?? '')];
		if (form.get('remove') === 'yes') removeHoliday(house(), day);
		else {
			const no = addHoliday(house(), day, name);
			if (no) return fail(statusOf(no), { form: 'holidays', say: no.say });
		}
		return { form: 'holidays', done: true };
	},
	add: async ({ request }) => {
		const form = await request.formData();
		const text = (name: string) => String(form.get(name) ?? '').slice(0, 300);
		const level = text('level');
		const kept = { form: 'add', newName: text('name'), newEmail: text('email'), level };
		if (!(LEVELS as readonly string[]).includes(level))
			return fail(422, { ...kept, say: 'Choose what they may do.', at: 'level' });
		const made = await addAccount(house(), {
			name: text('name'),
			email: text('email'),
			level: level as Level,
			password: text('password')
		});
		return isRefusal(made)
			? fail(statusOf(made), { ...kept, say: made.say, at: made.at })
			: { form: 'add', done: true };
	},
	close: async ({ request }) => {
		const id = String((await request.formData()).get('id') ?? '');
		const no = closeAccount(house(), id);
		return no ? fail(statusOf(no), { form: 'close', say: no.say, at: id }) : { form: 'close', done: true };
	}
};
