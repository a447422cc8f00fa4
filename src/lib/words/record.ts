import type { PacketEvent, Plan, Recorded } from '../core/packet';
import { doneWord } from '../core/route';

/** An event in plain words, for the record beside a packet and for the evidence sheet. */
export function inWords(event: Recorded, plan: Plan): string {
	const person = (id: string) => plan.people.find((p) => p.id === id)?.name ?? 'somebody';
	const said = sentence(event, plan, person);
	return event.by.kind === 'office' && event.type !== 'PacketSent' ? `${said} By ${event.by.name}.` : said;
}

function sentence(event: PacketEvent, plan: Plan, person: (id: string) => string): string {
	switch (event.type) {
		case 'PacketSent':
			return `${event.sender.name} sent it as ${event.reference}.`;
		case 'StopOpened':
			return `Stop ${event.stop + 1} opened for ${event.people.map(person).join(' and ')}.`;
		case 'MessageSent':
			return `${MESSAGE[event.purpose]} sent to ${person(event.person)}, ${event.to}.`;
		case 'MessageRefused':
			return `A message to ${person(event.person)}, ${event.to}, came back: ${event.why}`;
		case 'PaperOpened':
			return `${person(event.person)} opened it.`;
		case 'ConsentGiven':
			return `${person(event.person)} agreed to sign electronically.`;
		case 'PersonFinished': {
			const duty = plan.people.find((p) => p.id === event.person)?.duty ?? 'signs';
			return `${person(event.person)} ${doneWord(duty)}.`;
		}
		case 'PersonNamed':
			return `${event.name}, ${event.email}, was named as ${plan.people.find((p) => p.id === event.person)?.role || 'the next person'}.`;
		case 'PersonDeclined':
			return `${person(event.person)} declined: ${event.reason}`;
		case 'AddressCorrected':
			return `The address of ${person(event.person)} was corrected from ${event.was} to ${event.now}.`;
		case 'PacketCompleted':
			return 'Everyone has done their part; the packet is complete.';
		case 'PacketWithdrawn':
			return `It was withdrawn: ${event.reason}`;
		case 'PacketExpired':
			return 'Its time ran out.';
		case 'CopySealed':
			return `“${plan.papers.find((p) => p.id === event.paper)?.name ?? 'A document'}” was sealed.`;
		case 'EvidenceSealed':
			return 'The evidence sheet was made and sealed.';
		case 'CopyFetched':
			return `${event.person === null ? 'The office' : person(event.person)} downloaded ${event.what}.`;
	}
}

const MESSAGE = {
	'your turn': 'The message was',
	nudge: 'A reminder was',
	copies: 'The sealed copies were',
	declined: 'Word of the declining was',
	withdrawn: 'Word of the withdrawal was',
	expired: 'Word that time ran out was'
} as const;
