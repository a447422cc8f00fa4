import { electronicFormatIBAN, isValidIBAN } from 'ibantools';
import isPostalCode from 'validator/lib/isPostalCode.js';
import { refuse, refuseWith, type Refusal } from '../../refusal';
import { checkers } from './checkers';

/** What a text can be held to. */
export const PATTERNS = ['digits', 'letters', 'postcode', 'phone', 'iban', 'own'] as const;
export type Pattern = (typeof PATTERNS)[number];

/** Countries whose postcodes and phone numbers are known, ISO 3166-1. */
export const COUNTRIES = [
	'GB',
	'IE',
	'DE',
	'AT',
	'CH',
	'FR',
	'BE',
	'NL',
	'LU',
	'ES',
	'PT',
	'IT',
	'DK',
	'SE',
	'NO',
	'FI',
	'PL',
	'CZ',
	'HU',
	'RO',
	'GR',
	'US',
	'CA',
	'AU',
	'NZ'
] as const;
export type Country = (typeof COUNTRIES)[number];

const LONGEST_OWN = 300;

/** Why a person's own pattern can't be used; null where it can. */
export function ownPatternFault(source: string): Refusal | null {
	if (source.length > LONGEST_OWN)
		return refuse('pattern-long', `The pattern has ${source.length} characters; ${LONGEST_OWN} is the most.`);
	const known = checkers();
	return known === null || known.pattern(source) !== null
		? null
		: refuse(
				'pattern-wrong',
				/\\[1-9]|\(\?[=!<]/.test(source)
					? 'Back references and look-arounds can’t be used in a pattern here.'
					: 'This pattern can’t be read as a regular expression.'
			);
}

/** Whether a text keeps to a pattern. Own patterns run in time linear in the text, so none can hang. */
export function checkPattern(text: string, pattern: Pattern, country: Country, own: string): Refusal | null {
	switch (pattern) {
		case 'digits':
			return /^\d+$/.test(text) ? null : refuse('pattern-digits', 'Digits only, please.');
		case 'letters':
			return /^[\p{L}\p{M} '’-]+$/u.test(text) ? null : refuse('pattern-letters', 'Letters only, please.');
		case 'postcode':
			return isPostcode(text.trim(), country)
				? null
				: refuseWith('pattern-postcode', `That is not a valid postcode (${countryName(country)}).`, { country });
		case 'phone':
			return checkers()?.phone(text, country) !== false || isFictionPhone(text)
				? null
				: refuse('pattern-phone', 'That is not a phone number; with its country code it is surest.');
		case 'iban':
			return isValidIBAN(electronicFormatIBAN(text) ?? '')
				? null
				: refuse('pattern-iban', 'That IBAN can’t be right: its check digits don’t agree.');
		case 'own': {
			const fault = ownPatternFault(own);
			if (fault) return fault;
			return checkers()?.pattern(own)?.matches(text) !== false
				? null
				: refuse('pattern-own', 'That is not written as it is wanted here.');
		}
	}
}

function isPostcode(text: string, country: Country): boolean {
	return isPostalCode(text, country as Parameters<typeof isPostalCode>[1]);
}

/** Numbers set aside for fiction are no valid lines, and the demo's world lives on them (Ofcom: 07700 900000–900999). */
function isFictionPhone(text: string): boolean {
	return /^(\+44|0)7700900\d{3}$/.test(text.replace(/[\s()-]/g, ''));
}

export function countryName(country: string): string {
	return new Intl.DisplayNames('en-GB', { type: 'region' }).of(country) ?? country;
}

/** Texts that keep to a pattern, to try things out with: of several lengths, and several for a pattern that only its maker knows. */
export function samplesOfPattern(pattern: Pattern, country: Country): string[] {
	const postcodes: Partial<Record<Country, string>> = {
		GB: 'BD23 1AA',
		IE: 'D02 X285',
		NL: '1012 AB',
		CA: 'K1A 0B1',
		US: '20500',
		PT: '1000-001',
		PL: '00-001',
		SE: '111 22',
		CZ: '110 00',
		GR: '104 31',
		LU: 'L-1111'
	};
	const long = ['DE', 'FR', 'ES', 'IT', 'FI', 'RO'].includes(country)
		? country === 'RO'
			? '010011'
			: '10115'
		: '1010';
	const samples: Record<Pattern, string[]> = {
		digits: ['12345678'],
		letters: ['Maren'],
		postcode: [postcodes[country] ?? long],
		phone: ['+44 7700 900123', '07700 900123', '+447700900123'],
		iban: [
			'GB29 NWBK 6016 1331 9268 19',
			'NO93 8601 1117 947',
			'BE68 5390 0754 7034',
			'DK50 0040 0440 1162 43',
			'AT61 1904 3002 3457 3201',
			'PT50 0002 0123 1234 5678 9015 4',
			'FR14 2004 1010 0505 0001 3M02 606',
			'ES91 2100 0418 4502 0005 1332',
			'PL61 1090 1014 0000 0712 1981 2874'
		],
		own: [
			'A1',
			'1',
			'12',
			'123',
			'1234',
			'12345',
			'123456',
			'A',
			'AB',
			'ABC',
			'A-1',
			'AB-12',
			'AB-123',
			'AB-1234',
			'AB 1234',
			'A12345',
			'AB123456C',
			'abc',
			'abc123',
			'1-23',
			'12/2026',
			'2026-12',
			'yes'
		]
	};
	return samples[pattern];
}
