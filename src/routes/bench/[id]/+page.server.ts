import { error } from '@sveltejs/kit';
import { commissionFault, hoursInWords } from '$lib/core/notary';
import { house } from '$lib/server';
import { foldersFor } from '$lib/server/folders';
import { holidayList } from '$lib/server/holidays';
import { correctingOf } from '$lib/server/packets/correcting';
import { notariesToChoose } from '$lib/server/notary';
import { BINNED, readDraft } from '$lib/server/packets/drafts';
import { looksOf, strippedOf } from '$lib/server/papers';
import { organisation } from '$lib/server/settings';
import { ownTemplate } from '$lib/server/templates';
import { accountIn, orError } from '$lib/server/web';

// A working place that lives in the browser: rendering it on the server first only makes its opening slower.
export const ssr = false;

/** Notaries for the duty that needs one, each with why they can't act now. */
function choosable() {
	const now = house().now().toISOString();
	return notariesToChoose(house().db).map((one) => ({
		id: one.id,
		name: one.name,
		email: one.email,
		jurisdiction: one.jurisdiction,
		fault: commissionFault(one, now)?.say ?? '',
		hours: hoursInWords(one),
		fees: one.fees
	}));
}

export const load = ({ params, locals }) => {
	const draft = readDraft(house(), params.id);
	if (!draft) error(404, { message: 'This draft is gone: it has been sent or put away.' });
	if (draft.binnedAt !== null) error(410, { message: BINNED.say });
	const account = accountIn(locals);
	const template = draft.template === null ? null : orError(ownTemplate(house(), account, draft.template));
	const { name, email } = account;
	return {
		draft,
		leftOut: Object.fromEntries(draft.plan.papers.map(({ digest }) => [digest, strippedOf(house(), digest)])),
		unlike: Object.fromEntries(
			draft.plan.papers.map(({ digest }): [string, number[]] => [digest, looksOf(house(), digest)?.unlike ?? []])
		),
		correcting: correctingOf(house(), draft),
		template: template && { id: template.id, version: template.version },
		sender: { name, email },
		organisation: organisation(house().db),
		folders: foldersFor(house(), account),
		notaries: choosable(),
		holidays: holidayList(house()).map((one) => one.day)
	};
};
