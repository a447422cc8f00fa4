import type { Doubt } from '../../core/paper';

/** A doubt as the office reads it. */
export function doubtSays({ what, text, reads }: Doubt): string {
	switch (what) {
		case 'page missing':
			return 'The page is missing.';
		case 'place empty':
			return `Nothing is written at “${text}”.`;
		case 'words changed':
			return reads === '' || reads === text ? `“${text}” was written over.` : `“${text}” reads “${reads}” now.`;
		case 'writing':
			return 'Something is written where no place is.';
		case 'too coarse':
			return `It has ${text} dots to the inch, too few to be kept.`;
		case 'hardly the same':
			return 'Hardly any of its words are where they were.';
		case 'foreign page':
			return {
				'of another packet': 'A page of another packet.',
				'of somebody else': 'A page that went out to somebody else.',
				'of an older version': 'A page of what went out before; the document was fetched anew since.',
				blank: 'A picture without words: a blank page, or something else.',
				'not known': 'A page that can’t be told for any of these.'
			}[text]!;
	}
}

/** Where a paper is, as the office reads it. */
export const STATE = {
	fetched: 'It was fetched and has not come back yet.',
	looking: 'What came back is being held against what went out.',
	doubts: 'It has come back. Look at what is in doubt, then say what is to be done.',
	sure: 'It has come back, and nothing is in doubt.',
	again: 'Pages are wanted again.',
	refused: 'It was refused.',
	accepted: 'It was taken for the document.'
} as const;
