import { refuse } from '$lib/core/refusal';
import { LIMITS } from '$lib/press';
import { house } from '$lib/server';
import { addPaper, type AddWish } from '$lib/server/papers';
import { answer, followed } from '$lib/server/web';

const MOST_PICTURES = 100;
const CHANGES = ['accepted', 'before'] as const;

/**
 * Takes one document in: the bytes of a file are the body, or pictures come as a form. Its name stands in `?name=`, and
 * in `&changes=` how a Word document with tracked changes is wanted. Asked for as `application/x-ndjson` it tells how far
 * it is; a caller who goes away calls it off.
 */
export const POST = async ({ request, url }) => {
	const name = url.searchParams.get('name') ?? 'Document';
	const changes = CHANGES.find((one) => one === url.searchParams.get('changes'));
	if (Number(request.headers.get('content-length') ?? 0) > LIMITS.bytes)
		return answer(
			refuse(
				'file-too-large',
				`“${name.slice(0, 100)}” is larger than ${LIMITS.bytes / 1024 / 1024} MB, which is the most.`
			)
		);
	const files = await filesOf(request);
	if (files.length > MOST_PICTURES)
		return answer(refuse('too-many-pictures', `One document takes ${MOST_PICTURES} pictures at most.`));
	const locale = url.searchParams.get('locale')?.slice(0, 20);
	const add = (following: AddWish) =>
		addPaper(house(), name, files, { ...following, ...(changes && { changes }), ...(locale && { locale }) });
	return request.headers.get('accept') === 'application/x-ndjson' ? followed(add) : answer(await add({}));
};

async function filesOf(request: Request): Promise<Uint8Array[]> {
	if (!request.headers.get('content-type')?.startsWith('multipart/form-data'))
		return [new Uint8Array(await request.arrayBuffer())];
	const files = (await request.formData()).getAll('file').filter((part) => part instanceof File);
	return Promise.all(files.slice(0, MOST_PICTURES + 1).map(async (file) => new Uint8Array(await file.arrayBuffer())));
}
