/** What was wrong with an entry, by the code of its refusal (core/field): a few words, since nobody knows what stood there. */
export const WHY_REFUSED: Record<string, string> = {
	'choice-unknown': 'none of those offered',
	'day-bad': 'no such day',
	'day-early': 'too early a day',
	'day-late': 'too late a day',
	'email-bad': 'no address',
	'file-too-large': 'too large a file',
	'file-type': 'a file of another kind',
	'known-empty': 'empty',
	'known-long': 'too long',
	'mark-empty': 'empty',
	'mark-too-small': 'too small to be seen',
	'number-bad': 'no number',
	'number-decimals': 'too many decimals',
	'number-large': 'too large',
	'number-small': 'too small',
	'number-whole': 'no whole number',
	'pattern-digits': 'not digits',
	'pattern-iban': 'no IBAN',
	'pattern-letters': 'not letters',
	'pattern-own': 'not as it should look',
	'pattern-phone': 'no telephone number',
	'pattern-postcode': 'no postcode',
	'pick-unknown': 'none of the group',
	'text-empty': 'empty',
	'text-exact': 'too many or too few characters',
	'text-lines': 'too many lines',
	'text-long': 'too long',
	'text-short': 'too short',
	'tick-this': 'not ticked',
	'ticks-few': 'too few ticked',
	'ticks-many': 'too many ticked',
	'ticks-none': 'none ticked',
	'ticks-unknown': 'none of those offered'
};

/** A page of somebody's own may send any code. */
export const whyRefused = (code: string): string => WHY_REFUSED[code] ?? 'for another reason';
