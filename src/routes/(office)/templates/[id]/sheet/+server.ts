import { error, redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { newBatch } from '$lib/server/batches';
import { formIn } from '$lib/server/forms';
import { accountIn, orError } from '$lib/server/web';

/** A sheet for this template: a batch, to be looked at before anything goes. */
export const POST = async ({ params, request, locals }) => {
	const file = (await formIn(request)).file('sheet');
	if (!file) error(422, { message: 'Choose a sheet: a CSV file.' });
	const bytes = new Uint8Array(await file.arrayBuffer());
	const { id } = orError(newBatch(house(), accountIn(locals), params.id, file.name, bytes));
	redirect(303, `/batches/${id}`);
};
