import { error, redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { newBatch, readySheet } from '$lib/server/batches';
import { formIn } from '$lib/server/forms';
import { accountIn, fileResponse, orError } from '$lib/server/web';

const BOOK = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** A sheet for this template, to be filled in. */
export const GET = async ({ params, locals }) => {
	const { bytes, name } = orError(await readySheet(house(), accountIn(locals), params.id));
	return fileResponse(bytes, BOOK, name);
};

/** A sheet for this template: a batch, to be looked at before anything goes. */
export const POST = async ({ params, request, locals }) => {
	const file = (await formIn(request)).file('sheet');
	if (!file) error(422, { message: 'Choose a sheet: XLSX or CSV.' });
	const bytes = new Uint8Array(await file.arrayBuffer());
	const { id } = orError(await newBatch(house(), accountIn(locals), params.id, file.name, bytes));
	redirect(303, `/batches/${id}`);
};
