import type { Answers } from '../field';
import type { ActKind, Step } from '../notary';
import type { Field, Paper } from './plan';
import type { Stage } from './sessions';

/** The room before a notary, as one of a session sees it: made by the server, read by the interface. */

/** The room as one of a session sees it now. */
export interface RoomView {
	title: string;
	zone: string;
	locale: string;
	now: string;
	me: { id: string; name: string; notary: boolean };
	notary: {
		name: string;
		number: string;
		jurisdiction: string;
		until: string;
	};
	act: ActKind;
	steps: Step[];
	/** as it is shown; '' where none is */
	fee: string;
	/** the words of the oath; null where none is taken */
	oath: string | null;
	/** `when`: in words */
	appointment: { starts: string; minutes: number; when: string } | null;
	/** 'not yet': the stop has not opened; 'over': it was done, or ended */
	is: 'not yet' | 'open' | 'over';
	running: boolean;
	begun: boolean;
	present: boolean;
	/** who is asked to sign now; `watched`: nobody signs before they are */
	turn: string | null;
	watched: boolean;
	people: RoomPerson[];
	/** the act as the notary has drawn it up */
	drawn: string | null;
	/** what the notary finds when it is to be drawn up; '' for others */
	toDraw: string;
	papers: Paper[];
	fields: Field[];
	answers: Answers;
	/** the page that all look at */
	page: { paper: string; page: number };
	words: { id: number; name: string; mine: boolean; said: string; at: string }[];
}

export interface RoomPerson {
	id: string;
	name: string;
	notary: boolean;
	/** in the room, on their own device or the notary's */
	there: boolean;
	/** on the notary's device */
	guest: boolean;
	stage: Stage;
	/** how they have shown who they are, for the notary alone; '' where they have shown nothing */
	known: string;
	/** how the notary knows them; '' until they are confirmed */
	confirmed: string;
	sworn: boolean;
	signed: boolean;
	approved: boolean;
	doubt: string;
	/** they still have to show who they are */
	toShow: boolean;
}
