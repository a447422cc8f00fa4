import { house } from '$lib/server';
import { heldBy } from '$lib/server/access';
import { summaryPaper } from '$lib/server/amending';
import { NO_DRAFT, readDraft } from '$lib/server/packets/drafts';
import { isRefusal } from '$lib/core/refusal';
import { answer } from '$lib/server/web';

/** Makes the page of changes of this draft as it was saved last: gives the document. */
export const POST = async ({ params }) => {
	const draft = readDraft(house(), params.id);
	if (!draft) return answer(NO_DRAFT);
	const paper = await summaryPaper(house(), draft.plan);
	return answer(isRefusal(paper) ? paper : heldBy(house().db, params.id, paper));
};
