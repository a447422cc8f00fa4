import { refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { arrived } from '$lib/server/arriving';
import { addDocuments } from '$lib/server/batches';
import { accountIn, answer } from '$lib/server/web';

/** Documents that rows of a batch have instead of the template's, as a form: PDF, Word, or a ZIP of them. */
export const POST = async ({ params, request, locals }) => {
	const account = accountIn(locals);
	const body = await arrived(house(), request);
	return answer(
		(await body(async (whole) => {
			const files = (await whole.form())
				.getAll('document')
				.filter((one) => one instanceof File && one.size > 0) as File[];
			if (files.length === 0) return refuse('file-empty', 'Choose documents: PDF, Word, or a ZIP of them.');
			const all = await Promise.all(
				files.map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) }))
			);
			return addDocuments(house(), account, params.id, all);
		})) ?? { done: true }
	);
};
