import type { Plan } from '../packet/plan';
import type { Amends } from './asked';

/** What an amendment changes, in sentences that everybody reads first. */
export function amendmentInWords({ amends, papers }: Pick<Plan, 'papers'> & { amends: Amends }): string[] {
	const why = amends.why ? ` ${amends.why}` : '';
	const before = amends.notice
		? ` Notice would have been due by ${amends.notice}; with their signatures the parties agree to this day all the same.`
		: '';
	const whole =
		amends.does === 'ends'
			? [`“${amends.title}” ends on ${amends.day ?? '…'}.${why}${before}`]
			: amends.does === 'renews'
				? [`“${amends.title}” goes on until ${amends.day ?? '…'}.${why}`]
				: [];
	const exchanged = papers.filter((paper) => paper.id !== amends.summary && !amends.papers.includes(paper.digest));
	return [
		...whole,
		...amends.changes.map(({ paper, page, words, instead }) => {
			const name = papers.find((one) => one.id === paper)?.name ?? 'a document';
			const at = `Page ${page + 1} of “${name}”:`;
			return instead === ''
				? `${at} “${words}” falls away.`
				: `${at} “${words}” is struck; “${instead}” stands instead.`;
		}),
		...exchanged.map((paper) => `“${paper.name}” takes the place of what was there, or is added.`)
	];
}

/** What is still missing of it, a sentence each. */
export function amendmentFaults(plan: Plan): { code: string; say: string }[] {
	const { amends } = plan;
	if (!amends) return [];
	const faults: { code: string; say: string }[] = [];
	if (amendmentInWords({ ...plan, amends }).length === 0)
		faults.push({
			code: 'nothing-amended',
			say: 'Nothing is changed yet. Strike words, exchange pages, or add a page of changes.'
		});
	if (amends.does !== 'changes' && !amends.day)
		faults.push({ code: 'no-last-day', say: 'Say on which day it ends from now on.' });
	const acts = new Set(plan.stops.flatMap((stop) => stop.people));
	const away = amends.parties.filter(
		({ id }) => !acts.has(id) || plan.people.find((person) => person.id === id)?.duty !== 'signs'
	);
	if (away.length > 0 && !amends.without)
		faults.push({
			code: 'party-away',
			say: `${away.map(({ name }) => name).join(', ')} signed what is changed, and takes no part now. Say why, or let them sign.`
		});
	const signing = amends.parties.filter((party) => !away.includes(party));
	for (const change of amends.changes)
		for (const { id, name } of signing)
			if (!plan.fields.some((field) => field.change === change.id && field.kind === 'initials' && field.person === id))
				faults.push({
					code: 'no-initials',
					say: `The change of “${change.words}” has no place for the initials of ${name}.`
				});
	if (!amends.summary || !plan.papers.some((paper) => paper.id === amends.summary))
		faults.push({
			code: 'no-summary',
			say: 'The page that says what is changed is not made yet. Open the changes and make it.'
		});
	return faults;
}
