import { refuse } from '$lib/core/refusal';
import { LIMITS } from '$lib/press';
import { house } from '$lib/server';
import { addPaper } from '$lib/server/papers';
import { answer } from '$lib/server/web';

const MOST_PICTURES = 100;

/** Takes one document in: the bytes of a file are the body, or pictures come as a form. Its name stands in `?name=`. */
export const POST = async ({ request, url }) => {
	const name = url.searchParams.get('name') ?? 'Document';
	if (Number(request.headers.get('content-length') ?? 0) > LIMITS.bytes)
		return answer(
			refuse(
				'file-too-large',
				`“${name.slice(0, 100)}” is larger than ${LIMITS.bytes / 1024 / 1024} MB, which is the most.`
			)
		);
	if (!request.headers.get('content-type')?.startsWith('multipart/form-data'))
		return answer(await addPaper(house(), name, new Uint8Array(await request.arrayBuffer())));
	const files = (await request.formData()).getAll('file').filter((part) => part instanceof File);
	if (files.length > MOST_PICTURES)
		return answer(refuse('too-many-pictures', `One document takes ${MOST_PICTURES} pictures at most.`));
	const bytes = await Promise.all(files.map(async (file) => new Uint8Array(await file.arrayBuffer())));
	return answer(await addPaper(house(), name, bytes));
};
