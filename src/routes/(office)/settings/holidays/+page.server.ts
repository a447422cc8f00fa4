import { fail } from '@sveltejs/kit';
import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { addHoliday, holidayList, importHolidays, removeHoliday } from '$lib/server/holidays';
import { note } from '$lib/server/office-record';
import { accountIn, doerIn, statusOf } from '$lib/server/web';

export const load = ({ locals }) => ({ holidays: holidayList(house()), me: accountIn(locals) });

const noteHolidays = (locals: App.Locals, to: Record<string, unknown>) =>
	note(house(), doerIn(locals), { type: 'SettingsChanged', what: 'public holidays', from: {}, to });

export const actions = {
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
