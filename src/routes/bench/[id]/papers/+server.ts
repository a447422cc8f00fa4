import { refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { heldBy } from '$lib/server/access';
import { arrived, type Arrived } from '$lib/server/arriving';
import { NO_DRAFT, readDraft } from '$lib/server/packets/drafts';
import { addPaper, type AddWish } from '$lib/server/papers';
import { answer, followed } from '$lib/server/web';

const MOST_PICTURES = 100;
const CHANGES = ['accepted', 'before'] as const;

/**
 * Takes one document in: the bytes of a file are the body, or pictures come as a form. Its name stands in `?name=`, and
 * in `&changes=` how a Word document with tracked changes is wanted. Asked for as `application/x-ndjson` it tells how far
 * it is; a caller who goes away calls it off.
 */
export const POST = async ({ params, request, url }) => {
	if (!readDraft(house(), params.id)) return answer(NO_DRAFT);
	const name = url.searchParams.get('name') ?? 'Document';
	const changes = CHANGES.find((one) => one === url.searchParams.get('changes'));
	const locale = url.searchParams.get('locale')?.slice(0, 20);
	const body = await arrived(house(), request);
	const add = (following: AddWish) =>
		body(async (whole) => {
			const files = await filesOf(whole);
			if (files.length > MOST_PICTURES)
				return refuse('too-many-pictures', `One document takes ${MOST_PICTURES} pages at most.`);
			const wish = { ...following, ...(changes && { changes }), ...(locale && { locale }) };
			return heldBy(house().db, params.id, await addPaper(house(), name, files, wish));
		});
	return request.headers.get('accept') === 'application/x-ndjson' ? followed(add) : answer(await add({}));
};

async function filesOf(body: Arrived): Promise<Uint8Array[]> {
	if (!body.media.startsWith('multipart/form-data')) return [await body.bytes()];
	const files = (await body.form()).getAll('file').filter((part) => part instanceof File);
	return Promise.all(files.slice(0, MOST_PICTURES + 1).map(async (file) => new Uint8Array(await file.arrayBuffer())));
}
