import type { KindName } from '../../../src/lib/core/packet';

/** A blank as a reader of the form would name it; `whose`: the party, where the form says so. */
export interface Asked {
	label: string;
	kind: KindName;
	width?: number;
	whose?: string;
}

/** A part of a form, before any program has set it. */
export type Part =
	| { heading: string }
	| { prose: string }
	/** labels with a line after each */
	| { row: Asked[] }
	/** lines with small print below */
	| { below: Asked[] }
	/** boxes with their label in them */
	| { boxed: Asked[] }
	/** labels with bare room after them */
	| { bare: Asked[] }
	/** one box for each letter */
	| { letters: Asked; boxes: number }
	| { table: { head: string[]; kinds: (KindName | null)[]; rows: string[][] } }
	| { ticks: { question: string; options: string[]; either?: boolean } }
	/** signature blocks side by side */
	| { blocks: { head: string; whose: string; lines: Asked[] }[] };

/** By which program a form is set, and in which manner of its. */
export type Producer = 'browser' | 'office' | 'tex';

export interface OtherForm {
	name: string;
	producer: Producer;
	/** looked at while the search was made; the others were kept out */
	tuned: boolean;
	parties: string[];
	parts: Part[];
}

const sign = (label: string): Asked => ({ label, kind: 'signature' });
const day = (label: string): Asked => ({ label, kind: 'signing-date' });
const name = (label: string): Asked => ({ label, kind: 'name' });
const text = (label: string, width = 180): Asked => ({ label, kind: 'text', width });
const date = (label: string): Asked => ({ label, kind: 'date', width: 100 });
const sum = (label: string): Asked => ({ label, kind: 'number', width: 90 });
const mail = (label: string): Asked => ({ label, kind: 'email', width: 170 });

const PROSE = {
	en: 'Both parties have read the terms overleaf. Whoever ends this agreement does so in writing, four weeks before; what has been paid until then stays paid, and keys are given back on the last day.',
	de: 'Beide Seiten haben die umseitigen Bedingungen gelesen. Wer diesen Vertrag beendet, tut dies schriftlich und vier Wochen vorher; was bis dahin gezahlt ist, bleibt gezahlt.',
	fr: 'Les deux parties ont lu les conditions au verso. Celle qui met fin au contrat le fait par écrit, quatre semaines avant; ce qui a été payé reste acquis.',
	it: 'Le parti hanno letto le condizioni a tergo. Chi recede lo fa per iscritto, quattro settimane prima; quanto pagato resta acquisito.',
	nl: 'Beide partijen hebben de voorwaarden op de achterzijde gelezen. Opzeggen gaat schriftelijk, vier weken van tevoren.',
	es: 'Ambas partes han leído las condiciones al dorso. Quien termina el contrato lo hace por escrito, cuatro semanas antes.'
};

/** Forms as offices of several countries have them, each set by a program that isn't ours. */
export const OTHERS: OtherForm[] = [
	{
		name: 'Tenancy of a practice room',
		producer: 'browser',
		tuned: true,
		parties: ['Landlord', 'Tenant'],
		parts: [
			{ heading: 'Tenancy of a practice room' },
			{ prose: PROSE.en },
			{ row: [text('Address of the room', 300)] },
			{ row: [date('Date of birth'), mail('E-mail')] },
			{ row: [sum('Monthly rent (£)'), sum('Deposit (£)')] },
			{ ticks: { question: 'Keys handed over', options: ['yes', 'no'], either: true } },
			{
				blocks: [
					{
						head: 'Signed by the Landlord',
						whose: 'Landlord',
						lines: [sign('Signature'), name('Print name'), day('Date')]
					},
					{ head: 'Signed by the Tenant', whose: 'Tenant', lines: [sign('Signature'), name('Print name'), day('Date')] }
				]
			}
		]
	},
	{
		name: 'Catering agreement',
		producer: 'browser',
		tuned: true,
		parties: ['Caterer', 'Client'],
		parts: [
			{ heading: 'Catering agreement' },
			{ boxed: [text('Venue'), { label: 'Number of guests', kind: 'number', width: 110 }, date('Date of the event')] },
			{ boxed: [text('Telephone'), mail('E-mail address'), text('Postcode', 90)] },
			{
				table: {
					head: ['Dish', 'Portions', 'Price (£)'],
					kinds: ['text', 'text', 'number'],
					rows: [
						['', '', ''],
						['', '', ''],
						['', '', '']
					]
				}
			},
			{ ticks: { question: 'Extras', options: ['table linen', 'flowers', 'waiting staff'] } },
			{
				blocks: [
					{ head: 'For the Caterer', whose: 'Caterer', lines: [sign('Signature'), day('Date')] },
					{ head: 'For the Client', whose: 'Client', lines: [sign('Signature'), day('Date')] }
				]
			}
		]
	},
	{
		name: 'Mietvertrag Saal',
		producer: 'browser',
		tuned: true,
		parties: ['Vermieter', 'Mieter'],
		parts: [
			{ heading: 'Mietvertrag über einen Saal' },
			{ prose: PROSE.de },
			{ row: [name('Name, Vorname'), date('Geburtsdatum')] },
			{ row: [text('Telefon', 140), mail('E-Mail')] },
			{ letters: text('IBAN'), boxes: 22 },
			{ row: [sum('Miete in EUR')] },
			{
				blocks: [
					{ head: 'Vermieter', whose: 'Vermieter', lines: [sign('Unterschrift'), day('Datum')] },
					{ head: 'Mieter', whose: 'Mieter', lines: [sign('Unterschrift'), day('Datum')] }
				]
			}
		]
	},
	{
		name: 'Contrat de prêt',
		producer: 'browser',
		tuned: false,
		parties: ['Prêteur', 'Emprunteur'],
		parts: [
			{ heading: 'Contrat de prêt d’un instrument' },
			{ prose: PROSE.fr },
			{ row: [text('Instrument', 220)] },
			{ row: [sum('Montant en €'), date('Date de naissance')] },
			{ row: [mail('Courriel')] },
			{
				blocks: [
					{ head: 'Le prêteur', whose: 'Prêteur', lines: [sign('Signature'), day('Le')] },
					{ head: 'L’emprunteur', whose: 'Emprunteur', lines: [sign('Signature'), day('Le')] }
				]
			}
		]
	},
	{
		name: 'Volunteer registration',
		producer: 'browser',
		tuned: true,
		parties: ['Volunteer', 'Guardian'],
		parts: [
			{ heading: 'Volunteer registration' },
			{ bare: [name('Full name'), text('Address'), text('Telephone'), mail('E-mail')] },
			{ ticks: { question: 'Do you drive?', options: ['yes', 'no'], either: true } },
			{ ticks: { question: 'I can help with', options: ['doors', 'programmes', 'stage'] } },
			{ below: [{ ...sign('Volunteer signature'), whose: 'Volunteer' }, day('Date')] },
			{ below: [{ ...sign('Guardian signature'), whose: 'Guardian' }, day('Date')] }
		]
	},
	{
		name: 'Contratto di noleggio',
		producer: 'browser',
		tuned: false,
		parties: ['Locatore', 'Conduttore'],
		parts: [
			{ heading: 'Contratto di noleggio' },
			{ prose: PROSE.it },
			{ boxed: [text('Luogo'), date('Data di nascita'), mail('E-mail')] },
			{ boxed: [text('Telefono'), text('Codice postale', 100)] },
			{
				blocks: [
					{ head: 'Il locatore', whose: 'Locatore', lines: [sign('Firma'), day('Data')] },
					{ head: 'Il conduttore', whose: 'Conduttore', lines: [sign('Firma'), day('Data')] }
				]
			}
		]
	},
	{
		name: 'Purchase of a van',
		producer: 'office',
		tuned: true,
		parties: ['Buyer', 'Seller'],
		parts: [
			{ heading: 'Purchase of a van' },
			{ prose: PROSE.en },
			{ row: [text('Registration number', 120), text('Make and model', 160)] },
			{ row: [sum('Price (£)'), date('Date of handing over')] },
			{
				table: {
					head: ['Fault', 'Seen on', 'Repair cost (£)'],
					kinds: ['text', 'date', 'number'],
					rows: [
						['', '', ''],
						['', '', '']
					]
				}
			},
			{
				blocks: [
					{ head: 'Buyer', whose: 'Buyer', lines: [sign('Signature'), name('Name'), day('Date')] },
					{ head: 'Seller', whose: 'Seller', lines: [sign('Signature'), name('Name'), day('Date')] }
				]
			}
		]
	},
	{
		name: 'Arbeitsvertrag Aushilfe',
		producer: 'office',
		tuned: true,
		parties: ['Arbeitgeber', 'Arbeitnehmer'],
		parts: [
			{ heading: 'Arbeitsvertrag für eine Aushilfe' },
			{ prose: PROSE.de },
			{ row: [name('Name, Vorname'), date('Geburtsdatum')] },
			{ row: [text('Anschrift', 260)] },
			{ row: [sum('Betrag je Stunde in EUR'), text('Telefon', 110)] },
			{
				blocks: [
					{ head: 'Arbeitgeber', whose: 'Arbeitgeber', lines: [sign('Unterschrift'), day('Datum')] },
					{ head: 'Arbeitnehmer', whose: 'Arbeitnehmer', lines: [sign('Unterschrift'), day('Datum')] }
				]
			}
		]
	},
	{
		name: 'Overeenkomst zaalhuur',
		producer: 'office',
		tuned: false,
		parties: ['Verhuurder', 'Huurder'],
		parts: [
			{ heading: 'Overeenkomst zaalhuur' },
			{ prose: PROSE.nl },
			{ row: [text('Adres', 220)] },
			{ row: [mail('E-mail'), text('Telefoon', 110)] },
			{ row: [date('Geboortedatum')] },
			{
				blocks: [
					{ head: 'Verhuurder', whose: 'Verhuurder', lines: [sign('Handtekening'), day('Datum')] },
					{ head: 'Huurder', whose: 'Huurder', lines: [sign('Handtekening'), day('Datum')] }
				]
			}
		]
	},
	{
		name: 'Consent to film',
		producer: 'office',
		tuned: true,
		parties: ['Player', 'Witness'],
		parts: [
			{ heading: 'Consent to film' },
			{ prose: PROSE.en },
			{ row: [name('Full name')] },
			{ row: [mail('E-mail'), text('Postcode', 80)] },
			{ ticks: { question: 'May be shown', options: ['online', 'on television'] } },
			{ below: [{ ...sign('Signature of the player'), whose: 'Player' }, day('Date')] },
			{ below: [{ ...sign('Signature of the witness'), whose: 'Witness' }, day('Date')] }
		]
	},
	{
		name: 'Expenses of a member',
		producer: 'office',
		tuned: false,
		parties: ['Member', 'Treasurer'],
		parts: [
			{ heading: 'Expenses of a member' },
			{ row: [name('Name'), date('Date of travel')] },
			{
				table: {
					head: ['What', 'Date', 'Amount (£)'],
					kinds: ['text', 'date', 'number'],
					rows: [
						['', '', ''],
						['', '', ''],
						['', '', '']
					]
				}
			},
			{ row: [sum('Total (£)')] },
			{ below: [{ ...sign('Signature of the member'), whose: 'Member' }, day('Date')] },
			{ below: [{ ...sign('Signature of the treasurer'), whose: 'Treasurer' }, day('Date')] }
		]
	},
	{
		name: 'Loan of sheet music',
		producer: 'tex',
		tuned: true,
		parties: ['Lender', 'Borrower'],
		parts: [
			{ heading: 'Loan of sheet music' },
			{ prose: PROSE.en },
			{ row: [text('Title of the work', 220)] },
			{ row: [date('Return date'), sum('Value (£)')] },
			{
				blocks: [
					{ head: 'For the Lender', whose: 'Lender', lines: [sign('Signature'), day('Date')] },
					{ head: 'For the Borrower', whose: 'Borrower', lines: [sign('Signature'), day('Date')] }
				]
			}
		]
	},
	{
		name: 'Examination entry',
		producer: 'tex',
		tuned: true,
		parties: ['Applicant', 'Guardian'],
		parts: [
			{ heading: 'Examination entry' },
			{ row: [name('Surname'), name('First name')] },
			{ row: [date('Date of birth'), mail('E-mail')] },
			{
				table: {
					head: ['Piece', 'Composer', 'Minutes'],
					kinds: ['text', 'text', 'text'],
					rows: [
						['', '', ''],
						['', '', '']
					]
				}
			},
			{ ticks: { question: 'Needs an accompanist', options: ['yes', 'no'], either: true } },
			{ below: [{ ...sign('Applicant’s signature'), whose: 'Applicant' }, day('Date')] },
			{ below: [{ ...sign('Guardian’s signature'), whose: 'Guardian' }, day('Date')] }
		]
	},
	{
		name: 'Contrato de sala',
		producer: 'tex',
		tuned: false,
		parties: ['Arrendador', 'Arrendatario'],
		parts: [
			{ heading: 'Contrato de sala' },
			{ prose: PROSE.es },
			{ row: [text('Sala', 200)] },
			{ row: [text('Teléfono', 120), mail('E-mail')] },
			{
				blocks: [
					{ head: 'El arrendador', whose: 'Arrendador', lines: [sign('Firma'), day('Fecha')] },
					{ head: 'El arrendatario', whose: 'Arrendatario', lines: [sign('Firma'), day('Fecha')] }
				]
			}
		]
	},
	{
		name: 'Repair order',
		producer: 'tex',
		tuned: true,
		parties: ['Customer', 'Contractor'],
		parts: [
			{ heading: 'Repair order' },
			{ row: [text('Instrument', 180)] },
			{ row: [text('Telephone', 120), sum('Estimate, amount (£)')] },
			{ ticks: { question: 'Parts to be changed', options: ['strings', 'bridge', 'pegs'] } },
			{
				blocks: [
					{ head: 'Customer', whose: 'Customer', lines: [sign('Signature'), name('Name'), day('Date')] },
					{ head: 'Contractor', whose: 'Contractor', lines: [sign('Signature'), name('Name'), day('Date')] }
				]
			}
		]
	},
	{
		name: 'Guarantee of a lease',
		producer: 'tex',
		tuned: false,
		parties: ['Guarantor', 'Witness'],
		parts: [
			{ heading: 'Guarantee of a lease' },
			{ prose: PROSE.en },
			{ row: [name('Full name'), date('Date of birth')] },
			{ row: [sum('Limit of the guarantee, amount (£)')] },
			{ row: [text('Bank, IBAN', 220)] },
			{ below: [{ ...sign('Signature of the guarantor'), whose: 'Guarantor' }, day('Date')] },
			{ below: [{ ...sign('Signature of the witness'), whose: 'Witness' }, day('Date')] }
		]
	}
];
