import { refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { readDraft } from '$lib/server/packets/drafts';
import { keepFile, keepPicture } from '$lib/server/packets/files';
import { answer } from '$lib/server/web';

/** A file for the draft: its bytes are the body. With `?field=` an attachment of the sender's, else a picture. */
export const POST = async ({ params, request, url }) => {
	const draft = readDraft(house(), params.id);
	if (!draft) return answer(refuse('no-draft', 'This draft is gone: it has been sent or put away.'));
	const bytes = new Uint8Array(await request.arrayBuffer());
	const id = url.searchParams.get('field');
	if (id === null) return answer(await keepPicture(house(), bytes));
	const field = draft.plan.fields.find((f) => f.id === id && f.kind === 'attachment');
	if (!field) return answer(refuse('no-field', 'That place is not saved yet. Try again in a moment.'));
	return answer(await keepFile(house(), field, url.searchParams.get('name') ?? 'File', bytes));
};
