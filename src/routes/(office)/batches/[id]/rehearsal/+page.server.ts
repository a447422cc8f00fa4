import { isoDay } from '$lib/core/calendar';
import { senderAnswers } from '$lib/core/field';
import { localeOf } from '$lib/core/packet';
import { actorsOf } from '$lib/core/route';
import { house } from '$lib/server';
import { planOfRow, readBatch } from '$lib/server/batches';
import { organisation } from '$lib/server/settings';
import { accountIn, orError } from '$lib/server/web';

/** A row of a sheet, as each of its people would have it. */
export const load = ({ params, url, locals }) => {
	const account = accountIn(locals);
	const row = Number(url.searchParams.get('row'));
	const batch = orError(readBatch(house(), params.id));
	const plan = orError(planOfRow(house(), account, batch, row));
	const { name, zone } = organisation(house().db);
	const now = house().now().toISOString();
	const person = { ...account, organisation: name };
	return {
		batch: batch.id,
		name: batch.name,
		row,
		line: batch.sheet.lines[row]!,
		plan,
		actors: actorsOf(plan),
		senderAnswers: senderAnswers(plan, { person, now, zone, locale: localeOf(plan) }),
		today: isoDay(zone, now)
	};
};
