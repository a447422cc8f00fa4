import { Recogniser, verdictOf, type Verdict } from '../../core/page';
import type { Account } from '../accounts';
import type { House } from '../house';
import { planLookup } from '../packets/act';
import { wordsOfPaper } from '../papers';
import { templateNames } from './list';

/** What a document looks like. */
export interface Recognised {
	verdict: Verdict;
	/** the likeliest templates, best first, with the document of theirs that it is like */
	templates: { id: string; title: string; paper: string; share: number }[];
}

const MOST_TEMPLATES = 20_000;
const SHOWN = 5;

// One for a house, made when first asked; the words of a thousand templates take a moment to read.
const known = new WeakMap<House, Recogniser>();

/** Learns a template's documents anew, or forgets them where it is not to be used now. The others are left alone. */
export function relearn(house: House, template: string): void {
	const recogniser = known.get(house);
	if (!recogniser) return;
	recogniser.remove((id) => id.startsWith(`${template} `));
	learn(house, recogniser, template);
}

/** Which of the templates that this account may use a document looks like, by its words alone. */
export function recognise(house: House, account: Account, digest: string): Recognised {
	const may = new Map(templateNames(house, account, { most: MOST_TEMPLATES }).map((t) => [t.id, t.title]));
	const answers = recogniserOf(house)
		.ask(wordsOf(house, digest), SHOWN * 4)
		.map(({ id, ...rest }) => ({ ...rest, id: id.split(' ')[0]!, paper: id.split(' ')[1]! }))
		.filter((one) => may.has(one.id))
		.slice(0, SHOWN);
	return {
		verdict: verdictOf(answers),
		templates: answers.map(({ id, paper, share }) => ({ id, paper, share, title: may.get(id)! }))
	};
}

function recogniserOf(house: House): Recogniser {
	const there = known.get(house);
	if (there) return there;
	const recogniser = new Recogniser();
	learn(house, recogniser, null);
	known.set(house, recogniser);
	return recogniser;
}

/** Takes up the documents of one template, or of all. */
function learn(house: House, recogniser: Recogniser, template: string | null): void {
	const rows = house.db
		.prepare<[string | null, string | null], { id: string; plan: string }>(
			'SELECT id, plan FROM templates WHERE plan IS NOT NULL AND binned_at IS NULL AND (id = ? OR ? IS NULL)'
		)
		.all(template, template);
	for (const { id, plan } of rows)
		for (const paper of planLookup(house.db)(plan).papers)
			recogniser.add(`${id} ${paper.id}`, wordsOf(house, paper.digest));
}

/** Printed words, and those a machine has read from pictures. */
function wordsOf(house: House, digest: string): string[] {
	return wordsOfPaper(house, digest)
		.flat()
		.map((word) => word.text);
}
