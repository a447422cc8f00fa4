import { Recogniser, verdictOf, type PrintedWord, type Verdict } from '../../core/page';
import type { Plan } from '../../core/packet';
import type { Account } from '../accounts';
import type { House } from '../house';
import { planLookup } from '../packets/act';
import { listTemplates } from './list';

/** What a document looks like. */
export interface Recognised {
	verdict: Verdict;
	/** the likeliest templates, best first, with the document of theirs that it is like */
	templates: { id: string; title: string; paper: string; share: number }[];
}

// One for a house, made when first asked; the words of a thousand templates take a moment to read.
const known = new WeakMap<House, Recogniser>();

/** Templates have changed: the next question reads their words again. */
export function forgetTemplate(house: House): void {
	known.delete(house);
}

/** Which of the templates that this account may use a document looks like, by its words alone. */
export function recognise(house: House, account: Account, digest: string): Recognised {
	const may = new Map(listTemplates(house, account, { show: 'all', most: 5000 }).map((t) => [t.id, t.title]));
	const answers = recogniser(house)
		.ask(wordsOf(house, digest), 20)
		.map(({ id, ...rest }) => ({ ...rest, id: id.split(' ')[0]!, paper: id.split(' ')[1]! }))
		.filter((one) => may.has(one.id))
		.slice(0, 5);
	return {
		verdict: verdictOf(answers),
		templates: answers.map(({ id, paper, share }) => ({ id, paper, share, title: may.get(id)! }))
	};
}

function recogniser(house: House): Recogniser {
	let recogniser = known.get(house);
	if (recogniser) return recogniser;
	recogniser = new Recogniser();
	const plans = planLookup(house.db);
	const rows = house.db
		.prepare<[], { id: string; plan: string }>(
			'SELECT id, plan FROM templates WHERE plan IS NOT NULL AND binned_at IS NULL'
		)
		.all();
	for (const { id, plan } of rows)
		for (const paper of (plans(plan) as Plan).papers) recogniser.add(`${id} ${paper.id}`, wordsOf(house, paper.digest));
	known.set(house, recogniser);
	return recogniser;
}

function wordsOf(house: House, digest: string): string[] {
	const row = house.db.prepare<[string], { words: string }>('SELECT words FROM papers WHERE digest = ?').get(digest);
	return row ? (JSON.parse(row.words) as PrintedWord[][]).flat().map((word) => word.text) : [];
}
