import type { KindName } from '../../packet/plan';

/** What a printed label says about the blank beside it. */
export interface Meaning {
	kind: KindName;
	settings: Record<string, string | number | boolean>;
}

/** From the most particular to the plainest: the first that fits counts. Labels in English, German and French. */
const MEANINGS: [RegExp, KindName, Meaning['settings']?][] = [
	[/\b(initial(s|led)?|paraphe|handzeichen|kürzel)\b/, 'initials'],
	[/\b(signature|signed|sign here|sign|unterschrift|unterzeichnet|signé)\b(?!.*\bdate\b)/, 'signature'],
	[/\b(birth|born|geburts|naissance)/, 'date'],
	[/\b(e-?mail|courriel)\b/, 'email'],
	[/\b(iban|bank account|account number|kontonummer)\b/, 'text', { pattern: 'iban' }],
	[/\b(sort code)\b/, 'text'],
	[/\b(tele)?(phone|fon)\b|\bmobile\b|\btel\b|\bhandy\b/, 'text', { pattern: 'phone' }],
	[/\b(post ?code|postal code|plz|zip)\b/, 'text', { pattern: 'postcode' }],
	[/\b(job title|position held|position|occupation|capacity|funktion|fonction)\b/, 'job-title'],
	[/^(name of )?(the )?(organi[sz]ation|company|employer|firma|société)\b/, 'organisation'],
	[/^(family name|surname|last name|nachname|nom de famille)\b/, 'name', { part: 'family' }],
	[/^((first|given|fore)[ -]?names?|vorname|prénom)\b/, 'name', { part: 'given' }],
	[
		/^((your|full|print(ed)?|block) )?name( \(?in (full|capitals|block (letters|capitals))\)?)?( \(?please print\)?)?$/,
		'name'
	],
	[/^(name and (first|given) name|name, vorname|vor- und nachname)$/, 'name'],
	[
		/\b(dates?|dated|datum|day of|on the day)\b|\b(from|until|start(s|ing)?|ends?|returned? by|due|valid) ?(on|date)?$/,
		'date'
	],
	[/\b(amount|fee|sum|price|total|cost|value|deposit|rent|betrag|honorar|montant)\b/, 'number', { decimals: 2 }],
	[/(€|£|\beur\b|\bgbp\b|\bchf\b)/, 'number', { decimals: 2 }],
	[
		/\b(number of|no\. of|how many|quantity|qty|anzahl|nombre|miles|kilometres|hours|nights|persons|chairs)\b/,
		'number',
		{ decimals: 0 }
	]
];

/** The kind a label asks for; free text where it says nothing known. */
export function meaningOf(label: string): Meaning {
	const plain = label
		.toLowerCase()
		.replace(/[:*…]+$/, '')
		.replace(/\s+/g, ' ')
		.trim();
	for (const [pattern, kind, settings = {}] of MEANINGS) {
		if (!pattern.test(plain)) continue;
		const currency = kind === 'number' ? currencyIn(label) : null;
		return { kind, settings: { ...settings, ...(currency && { currency }) } };
	}
	return { kind: 'text', settings: {} };
}

function currencyIn(label: string): string | null {
	if (/€|\beur\b/i.test(label)) return 'EUR';
	if (/£|\bgbp\b/i.test(label)) return 'GBP';
	return /\bchf\b/i.test(label) ? 'CHF' : null;
}

/** Words of a label without what only leads to the blank. */
export function tidyLabel(text: string): string {
	return text
		.replace(/[_….]{2,}/g, ' ')
		.replace(/^[\s(–\-•*]+|[\s:)–\-*]+$/g, '')
		.replace(/\s+/g, ' ')
		.trim()
		.replace(/(\([^()]*)$/, '$1)')
		.replace(/\s*\(\s*\)$/, '')
		.slice(0, 80);
}
