import { cutText } from '../../clean-text';
import type { KindName } from '../../packet/plan';

/** What a printed label says about the blank beside it. */
export interface Meaning {
	kind: KindName;
	settings: Record<string, string | number | boolean>;
}

/**
 * From the most particular to the plainest: the first that fits counts. Labels in English, German, French, Italian,
 * Spanish, Portuguese, Dutch, Polish, Swedish and Danish.
 */
const MEANINGS: [RegExp, KindName, Meaning['settings']?][] = [
	[/\b(initial(s|led)?|paraphe|handzeichen|kürzel)\b/, 'initials'],
	[
		/\b(signature|signed|sign here|sign|unterschrift|unterzeichnet|signé|handtekening|assinatura|podpis|underskrift|firma (del|della|dell|de la|di)|namnteckning)(?![\p{L}])(?!.*\bdate\b)/u,
		'signature'
	],
	[/\b(birth|born|geburts|naissance|nascita|nacimiento|nascimento|geboorte|urodzenia|födelse|fødsels)/, 'date'],
	[/\b(e-?mail|courriel|correo electrónico|posta elettronica|e-post)\b/, 'email'],
	[/\b(iban|bank account|account number|kontonummer)\b/, 'text', { pattern: 'iban' }],
	[/\b(sort code)\b/, 'text'],
	[
		/\b(tele)?(phone|fon|foon)\b|\bmobile\b|\btel\b|\bhandy\b|\bt[eé]l[eéè]fon[eo]?\b|\btéléphone\b|\bcellulare\b/,
		'text',
		{ pattern: 'phone' }
	],
	[
		/\b(post ?code|postal code|plz|zip|code postal|codice postale|código postal|kod pocztowy|postnummer)\b|^cap$/,
		'text',
		{ pattern: 'postcode' }
	],
	[
		/\b(job title|position held|position|occupation|capacity|funktion|fonction|cargo|functie|stanowisko)\b/,
		'job-title'
	],
	[/^(name of )?(the )?(organi[sz]ation|company|employer|firma|société)\b/, 'organisation'],
	[
		/^(family name|surname|last name|nachname|nom de famille|cognome|apellidos?|achternaam|nazwisko|efternamn|efternavn)\b/,
		'name',
		{ part: 'family' }
	],
	[
		/^((first|given|fore)[ -]?names?|vorname|prénom|voornaam|imię|förnamn|fornavn)(?![\p{L}])/u,
		'name',
		{ part: 'given' }
	],
	[
		/^((your|full|print(ed)?|block) )?name( \(?in (full|capitals|block (letters|capitals))\)?)?( \(?please print\)?)?$/,
		'name'
	],
	[/\((please )?print name\)?$/, 'name'],
	[
		/^(name and (first|given) name|name, vorname|vor- und nachname|nom et prénom|nome e cognome|nombre y apellidos|naam|imię i nazwisko|namn|navn)$/,
		'name'
	],
	[
		/\b(dates?|dated|datum|fecha|day of|on the day)\b|^(data|dato)\b|^le$|\b(from|until|start(s|ing)?|ends?|returned? by|due|valid|seen|made|paid|received|issued) ?(on|date)?$/,
		'date'
	],
	[
		/\b(amount|fee|sum|price|total|cost|value|deposit|rent|betrag|honorar|montant|importo|importe|bedrag|kwota|belopp|beløb|caution|cauzione)\b/,
		'number',
		{ decimals: 2 }
	],
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
	const tidy = text
		.replace(/[_….]{2,}/g, ' ')
		.replace(/^[\s(–\-•*]+|[\s:)–\-*]+$/g, '')
		.replace(/\s+/g, ' ')
		.trim()
		.replace(/(\([^()]*)$/, '$1)')
		.replace(/\s*\(\s*\)$/, '');
	return cutText(tidy, 80);
}
