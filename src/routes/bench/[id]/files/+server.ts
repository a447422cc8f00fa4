import { refuse, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { heldBy } from '$lib/server/access';
import { arrived, ownBytes } from '$lib/server/arriving';
import { readDraft } from '$lib/server/packets/drafts';
import { keepFile, keepPicture } from '$lib/server/packets/files';
import { answer } from '$lib/server/web';

/** A file for the draft: its bytes are the body. With `?field=` an attachment of the sender's, else a picture. */
export const POST = async ({ params, request, url }) => {
	const draft = readDraft(house(), params.id);
	if (!draft) return answer(refuse('no-draft', 'This draft is gone: it has been sent or put away.'));
	const held = <T extends object>(kept: T | Refusal) => heldBy(house().db, draft.id, kept);
	const body = await arrived(house(), request);
	const id = url.searchParams.get('field');
	if (id === null)
		return answer(await body(async (whole) => held(await keepPicture(house(), ownBytes(await whole.bytes())))));
	const field = draft.plan.fields.find((f) => f.id === id && f.kind === 'attachment');
	if (!field) return answer(refuse('no-field', 'That place is not saved yet. Try again in a moment.'));
	const name = url.searchParams.get('name') ?? 'File';
	return answer(await body(async (whole) => held(await keepFile(house(), field, name, ownBytes(await whole.bytes())))));
};
