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

/** A text that keeps to a pattern, to try things out with. */
export function samplePattern(pattern: Pattern, country: Country): string {
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
	const samples: Record<Pattern, string> = {
		digits: '12345678',
		letters: 'Maren',
		postcode: postcodes[country] ?? long,
		phone: '+44 7700 900123',
		iban: 'GB29 NWBK 6016 1331 9268 19',
		own: ''
	};
	return samples[pattern];
}
