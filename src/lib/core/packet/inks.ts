import type { PaperExchanged, Recorded } from './events';
import { ASKED, type Plan } from './plan';
import type { Ink, SentPacket } from './state';

/** What became of a part that is signed on paper. Pure, as all of `evolve`. */

type InkEvent = Extract<
	Recorded,
	{
		type: 'PaperFetched' | 'ReturnHandedIn' | 'ReturnChecked' | 'ReturnAskedAgain' | 'ReturnRefused' | 'ReturnAccepted';
	}
>;

export function inked<S extends SentPacket>(state: S, event: InkEvent): S {
	const was = state.inks[event.person];
	const stands = (is: Ink['is'], change: Partial<Ink> = {}): S => ({
		...state,
		inks: {
			...state.inks,
			[event.person]: {
				out: event.out,
				digest: was?.digest ?? '',
				is,
				since: event.at,
				doubts: [],
				pages: [],
				word: '',
				...change
			}
		}
	});
	switch (event.type) {
		case 'PaperFetched':
			return stands('fetched', { digest: event.digest });
		case 'ReturnHandedIn':
			return stands('looking');
		case 'ReturnChecked':
			return stands(event.doubts.length === 0 ? 'sure' : 'doubts', { doubts: event.doubts });
		case 'ReturnAskedAgain':
			return stands('again', { pages: event.pages, doubts: event.doubts, word: event.word });
		case 'ReturnRefused':
			return stands('refused', { word: event.word });
		case 'ReturnAccepted':
			return {
				...stands('accepted'),
				plan: exchangedPlan(state.plan, event.papers, event.written),
				planDigest: event.plan
			};
	}
}

/** What was fetched before a correction shows something else now: it has to be fetched anew. */
export function stillOut(inks: SentPacket['inks'], toTell: Record<string, unknown>): SentPacket['inks'] {
	return Object.fromEntries(Object.entries(inks).filter(([id, ink]) => ink.is === 'accepted' || !(id in toTell)));
}

/** The scanned pages stand in the place of those that went out; what is written on them is drawn nowhere else. */
export function exchangedPlan(plan: Plan, papers: readonly PaperExchanged[], written: readonly string[]): Plan {
	const now = new Map(papers.map((one) => [one.paper, one.now]));
	const stands = new Set(written);
	return {
		...plan,
		papers: plan.papers.map((paper) => ({ ...paper, digest: now.get(paper.id) ?? paper.digest })),
		fields: plan.fields.map((field) => (stands.has(field.id) ? { ...field, paper: ASKED } : field))
	};
}
