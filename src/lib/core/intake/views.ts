import type { Answers } from '../field';
import type { Plan } from '../packet/plan';
import type { Starting } from './begin';
import type { Intake } from './schema';

/** What the server shows of intakes and cases, as the pages have it. */

/** The page as a visitor has it: shut with the office's sentence, or open. */
export type VisitorView = { heading: string; organisation: string; contact: string } & (
	{ state: 'closed'; say: string } | ({ state: 'open' } & Asking)
);

export interface Asking {
	setting: Intake;
	/** texts as HTML: the heading's under '', the others under their items' ids */
	html: Record<string, string>;
	/** what a visitor has to show at the door */
	door: 'code' | null;
	/** only what the walk asks for: nobody's address, no document, none of the office's own fields */
	plan: Plan;
	today: string;
	known: Answers;
	/** what was kept of their case, and how far it is; null where they begin */
	begun: {
		page: string;
		proved: boolean;
		email: string;
		starting: Starting | null;
		answers: Answers;
		handedIn: boolean;
		/** reached by the office's own link: it has taken the case over */
		byOffice: boolean;
	} | null;
	/** who a sheet says they are */
	invited: { name: string; email: string } | null;
}

/** begun: at it within a day; left: longer ago; then as its packet is. */
export type CaseStanding = 'begun' | 'left' | 'handed in' | 'waiting' | 'done' | 'ended' | 'hidden';

/** A case as the office's list shows it. */
export interface CaseRow {
	id: string;
	visitor: string;
	email: string;
	begunAt: string;
	seenAt: string;
	/** the page they were at last, by its id; '' before the first */
	page: string;
	standing: CaseStanding;
	/** its packet, where whoever looks may see it */
	packet: string | null;
	reference: string;
	/** who has it */
	having: string;
	taken: boolean;
}
