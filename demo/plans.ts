import type { Duty, Field, Plan } from '../src/lib/core/packet';
import { isRefusal } from '../src/lib/core/refusal';
import type { House } from '../src/lib/server/house';
import { addPaper } from '../src/lib/server/papers';
import type { Case, CaseKind } from './cases';
import * as documents from './documents';
import type { Letter } from './letter';

export interface Role {
	id: string;
	name: string;
	email: string;
	duty: Duty;
}

/** Who takes part in a kind of document and which places are whose. */
function rolesOf(
	kind: CaseKind,
	one: Case
): { stops: Role[][]; places: Record<string, [string, Field['kind'], string][]> } {
	const guest = { id: 'guest', name: one.person, email: one.email, duty: 'signs' as Duty };
	const other = (id: string, name: string, email: string, duty: Duty = 'signs') => ({ id, name, email, duty });
	const tamsin = other('tamsin', 'Tamsin Okoro', 'tamsin@brindlevale.example');
	const ruben = other('ruben', 'Ruben Vasquez-Lind', 'ruben@brindlevale.example', 'gets a copy');
	const block = (key: string): [string, Field['kind'], string][] => [
		[`${key}.signature`, 'signature', 'Signature'],
		[`${key}.name`, 'name', 'Name in full'],
		[`${key}.date`, 'signing-date', 'Date']
	];
	switch (kind) {
		case 'engagement':
			return {
				stops: [
					[other('ingrid', 'Ingrid Halloran', 'ingrid@brindlevale.example', 'approves')],
					[guest],
					[tamsin],
					[ruben]
				],
				places: {
					guest: [
						['musician.initials', 'initials', 'Initials'],
						['musician.note', 'text', 'Anything we should know'],
						...block('musician')
					],
					tamsin: block('orchestra')
				}
			};
		case 'loan':
			return {
				stops: [[guest], [other('lender', 'Hester Quill', 'h.quill@post.example')], [ruben]],
				places: {
					guest: [
						['borrower.initials', 'initials', 'Initials'],
						['borrower.address', 'text', 'Where it will be kept'],
						['borrower.phone', 'text', 'Telephone'],
						...block('borrower')
					],
					lender: block('lender')
				}
			};
		case 'consent':
			return {
				stops: [
					[guest],
					[other('guardian', `${one.person.split(' ')[1]} family`, `guardian.${one.email}`)],
					[other('odile', 'Odile Farrow', 'odile@brindlevale.example', 'gets a copy')]
				],
				places: {
					guest: block('player'),
					guardian: [
						['guardian.health', 'text', 'Medicines and allergies'],
						['guardian.phone', 'text', 'Telephone in an emergency'],
						...block('guardian')
					]
				}
			};
		case 'handbook':
			return { stops: [[guest]], places: { guest: block('steward') } };
		case 'hall':
			return { stops: [[guest], [tamsin], [ruben]], places: { guest: block('keeper'), tamsin: block('orchestra') } };
		case 'release':
			return {
				stops: [[guest], [other('odile', 'Odile Farrow', 'odile@brindlevale.example', 'gets a copy')]],
				places: { guest: block('musician') }
			};
		case 'rota':
			return {
				stops: [[guest, other('second', 'Bram Oyelaran', 'b.oyelaran@post.example')]],
				places: {
					guest: [['first.service', 'text', 'Service given'], ...block('first')],
					second: [['second.service', 'text', 'Service taken'], ...block('second')]
				}
			};
		case 'claim':
			return {
				stops: [
					[guest],
					[other('leader', 'Lucia Marchetti', 'l.marchetti@post.example')],
					[{ ...ruben, duty: 'approves' }]
				],
				places: {
					guest: [['claimant.what', 'text', 'For what'], ['claimant.sum', 'text', 'In all'], ...block('claimant')],
					leader: block('leader')
				}
			};
	}
}

function letterOf(one: Case): Promise<Letter> {
	switch (one.kind) {
		case 'engagement':
			return documents.engagement(one.person, one.detail, one.about, 'GBP 185.00');
		case 'loan':
			return documents.loan(one.detail, 'EUR 24,500.00');
		case 'consent':
			return documents.youthConsent(one.person);
		case 'handbook':
			return documents.handbookReceipt();
		case 'hall':
			return documents.hallHire(one.detail, 'GBP 340.00', one.about !== IN_INK);
		case 'release':
			return documents.recordingRelease(one.detail);
		case 'rota':
			return documents.rotaSwap();
		case 'claim':
			return documents.expenseClaim();
	}
}

/** What goes out on paper is kept short. */
export const IN_INK = 'in ink';

/** The plan of a case, with its document taken in. */
export async function planOf(house: House, one: Case): Promise<Plan> {
	const letter = await letterOf(one);
	const paper = await addPaper(house, `${one.title.split(',')[0]}.pdf`, letter.bytes);
	if (isRefusal(paper)) throw new Error(paper.say);
	if ('attached' in paper) throw new Error(paper.why);
	const { stops, places } = rolesOf(one.kind, one);
	const fields = Object.entries(places).flatMap(([person, list]) =>
		list.map(([place, kind, label], i): Field => {
			const at = letter.places[place]!;
			return {
				id: `${person}-${i}`,
				kind,
				person,
				paper: 'paper',
				page: at.page,
				rect: at.rect,
				label,
				key: place.replace('.', '_'),
				required: kind !== 'text',
				settings: {}
			};
		})
	);
	return {
		title: one.title,
		message: one.message ?? '',
		days: one.days ?? 21,
		papers: [{ id: 'paper', name: paper.name, digest: paper.digest, pages: paper.pages }],
		attachments: [],
		people: stops.flat(),
		stops: stops.map((people, i) => ({ id: `s${i}`, people: people.map((p) => p.id) })),
		fields
	};
}
