import { written, type Letter } from './mail';
import type { Words } from './words';

/** Letters about cases: a visitor's code, and what the office has sent by itself afterwards. */

export interface CaseMailFacts {
	to: string;
	heading: string;
	/** whose page it is: somebody of the office, and the office */
	from: { name: string; email: string };
	office: string;
	code: string;
	minutes: number;
	/** the way back to what was entered */
	link: string;
	colour: string;
}

/** The code that proves an address, and the way back. */
export function caseLetter(f: CaseMailFacts, words: Words): Letter {
	return written(
		{
			subject: words('mail.code.subject', { title: f.heading }),
			hello: words('mail.dear', { name: f.to }),
			paragraphs: [words('mail.code', { code: f.code, minutes: f.minutes }), words('mail.case')],
			button: { text: words('mail.case.open'), link: f.link },
			sign: [f.from.name, f.office],
			foot: words('mail.foot', { reference: f.heading, sender: f.from.name, address: f.from.email }),
			colour: f.colour
		},
		words
	);
}

/** A letter of the office's own, in its own words; what stands around them is in the language of whom it goes to. */
export function officeNote(
	f: {
		/** '' where it goes to an address alone */
		to: string;
		from: string;
		office: string;
		subject: string;
		message: string;
		reference: string;
		colour: string;
	},
	words: Words
): Letter {
	return written(
		{
			subject: f.subject,
			hello: f.to ? words('mail.dear', { name: f.to }) : '',
			paragraphs: f.message.split(/\n{2,}/),
			button: null,
			sign: [f.from, f.office],
			foot: f.reference,
			colour: f.colour
		},
		words
	);
}
