import { differences, type Difference } from '../../core/amend';
import { addressOf, fold, type Paper, type Plan } from '../../core/packet';
import type { House } from '../house';
import { eventsOf } from '../packets/log';
import { planLookup } from '../packets/state';
import { wordsOfPaper } from '../papers';
import type { Visitor } from './visit';

/** What changed, to the eye of somebody who had opened it before: struck and new words, document by document. */
export interface ChangedWords {
	name: string;
	/** how many pages it has now */
	pages: number;
	differences: Difference[];
}

const MOST = 200;

/** The words that differ from what this person had opened; none where they had opened nothing else, or nothing of it differs. */
export function changedWords(house: House, visitor: Visitor): ChangedWords[] {
	const before = planBefore(house, visitor);
	if (!before) return [];
	let left = MOST;
	return visitor.packet.plan.papers.flatMap((paper, i) => {
		const was = earlierOf(before.papers, paper, i);
		if (!was || was.digest === paper.digest || left <= 0) return [];
		const words = (one: Paper) => wordsOfPaper(house, one.digest).map((page) => page.map(({ text }) => text));
		const found = differences(words(was), words(paper)).slice(0, left);
		left -= found.length;
		return found.length > 0 ? [{ name: paper.name, pages: paper.pages.length, differences: found }] : [];
	});
}

/** The same document of another plan: by its id, by its name, or by its place where there are as many. */
const earlierOf = (papers: Paper[], paper: Paper, place: number): Paper | undefined =>
	papers.find(({ id }) => id === paper.id) ?? papers.find(({ name }) => name === paper.name) ?? papers[place];

function planBefore(house: House, visitor: Visitor): Plan | null {
	const { packet, person } = visitor;
	if (!packet.toTell[person.id]) return openedVersion(house, visitor);
	let before: string | null = null;
	for (const event of eventsOf(house.db, packet.packet))
		if (event.type === 'PlanCorrected' && event.toTell[person.id]) before ??= event.was;
		else if ('person' in event && event.person === person.id && event.type === 'CorrectionShown') before = null;
	return before === null ? null : planLookup(house.db)(before);
}

/** Of a new version: the one before it, where whoever reads this had opened that under the same address. */
export function openedVersion(house: House, { packet, person }: Visitor): Plan | null {
	if (!packet.plan.follows) return null;
	const events = eventsOf(house.db, packet.plan.follows);
	const earlier = fold(events, planLookup(house.db));
	if (earlier.status === 'none') return null;
	const address = addressOf(packet, person.id).toLowerCase();
	const same = earlier.plan.people.find(({ id }) => addressOf(earlier, id).toLowerCase() === address);
	if (!same || address === '') return null;
	const opened = events.some((event) => event.type === 'PaperOpened' && event.person === same.id);
	return opened ? earlier.plan : null;
}
