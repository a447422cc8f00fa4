import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { binDraft, restoreDraft } from '$lib/server/packets/draft-bin';
import { accountIn, answer } from '$lib/server/web';

/** Puts the draft into the bin, or takes it back from there. */
export const POST = async ({ params, request, locals }) => {
	const given = (await bodyOf(request)) as { back?: unknown } | undefined;
	return answer((given?.back === true ? restoreDraft : binDraft)(house(), accountIn(locals), params.id));
};
