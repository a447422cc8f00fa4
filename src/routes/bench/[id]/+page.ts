import { browser } from '$app/environment';
import { sharedPdf } from '$lib/ui/pages/pdf';

/** Asks for the first document while the Bench is still being built, so that its first page need not wait for that. */
export const load = ({ data }) => {
	const first = data.draft.plan.papers[0];
	// what fails here is asked for again, and said, by the page that wants it
	if (browser && first) sharedPdf(`/papers/${first.digest}`).catch(() => undefined);
	return data;
};
