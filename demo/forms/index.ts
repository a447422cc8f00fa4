import { formWithFields, letterWithBlanks, rentalGerman } from './held-out';
import type { Truth } from './sheet';
import { expenseClaim, hallHire, instrumentLoan, stewardSheet, youthConsent } from './tuned';

export interface MadeForm {
	name: string;
	tuned: boolean;
	make: () => Promise<{ bytes: Uint8Array; truth: Truth[] }>;
}

/** The eight forms on which finding places is measured; three of them were kept out while it was made. */
export const FORMS: MadeForm[] = [
	{ name: 'Hall hire application', tuned: true, make: hallHire },
	{ name: 'Instrument loan', tuned: true, make: instrumentLoan },
	{ name: 'Expense claim', tuned: true, make: expenseClaim },
	{ name: 'Youth consent', tuned: true, make: youthConsent },
	{ name: 'Steward registration', tuned: true, make: stewardSheet },
	{ name: 'Mietvertrag (German)', tuned: false, make: rentalGerman },
	{ name: 'Letter with blanks', tuned: false, make: letterWithBlanks },
	{ name: 'Form with fields of its own', tuned: false, make: formWithFields }
];
export type { Truth } from './sheet';
