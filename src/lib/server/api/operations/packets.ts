import { Type, type Static } from '@sinclair/typebox';
import type { PacketView, SentPacket } from '../../../core/packet';
import { isRefusal, type Refusal } from '../../../core/refusal';
import { Line } from '../../../core/schema';
import { packetPage } from '../../lists';
import { correctAddress, moveDeadline, nudge, nudgeAll, takeLink, withdraw } from '../../packets/office';
import { packetView } from '../../packets/packet-view';
import type { PacketRow } from '../../packets/rows';
import { sendTemplate } from '../../templates';
import { cursorOf, placeOf } from '../cursors';
import { givenFor } from '../given';
import { operation } from '../operation';
import { After, Day, Id, oneOf, pageOf, strict } from '../schemas';
import { Done, DONE, FromTemplate, PacketBrief, PacketState, Sent } from '../shapes';

const see = { part: 'packet', kind: 'packet', doing: 'see' } as const;
const change = { part: 'packet', kind: 'packet', doing: 'change' } as const;
const Person = Line(40, { description: 'the id that the packet has for them' });

export const briefOf = (row: PacketRow): Static<typeof PacketBrief> => ({
	id: row.id,
	reference: row.reference,
	title: row.title,
	status: row.status as SentPacket['status'],
	folder: row.folder,
	sender: row.sender,
	sentAt: row.sentAt,
	since: row.since,
	deadline: row.deadline,
	endedAt: row.endedAt,
	template: row.template
});

function stateOf(view: PacketView): Static<typeof PacketState> {
	const since = new Map(view.thread.flat().map((person) => [person.id, person.since]));
	return {
		id: view.id,
		reference: view.reference,
		title: view.title,
		status: view.status,
		folder: view.folder,
		sender: view.sender,
		sentAt: view.sentAt,
		deadline: view.deadline,
		endedAt: view.endedAt,
		why: view.why,
		sealed: view.sealed,
		people: view.people.map((person) => ({
			id: person.id,
			name: person.name,
			email: person.email,
			phone: person.phone,
			duty: person.duty,
			delivery: person.deliver,
			state: person.standing,
			why: person.why,
			since: since.get(person.id) ?? null
		})),
		documents: view.papers.map(({ id, name, digest }) => ({ id, name, digest })),
		from: view.from.map(({ template, version }) => ({ template, version })),
		follows: view.follows?.id ?? null,
		followedBy: view.followedBy?.id ?? null
	};
}

const done = (result: object | Refusal | null): Static<typeof Done> | Refusal => (isRefusal(result) ? result : DONE);

export const packets = [
	operation({
		method: 'get',
		path: '/packets',
		right: 'look',
		does: 'Packets that are out, or those that are over',
		more: 'Out: the longest wait first, those of batches apart. Over: the last ended first.',
		query: Type.Object(
			{
				list: Type.Optional(oneOf(['open', 'ended'] as const)),
				folder: Type.Optional(Line(80)),
				template: Type.Optional(Id),
				batch: Type.Optional(Id),
				after: After
			},
			strict
		),
		gives: pageOf(PacketBrief),
		do: ({ house, account, query }) => {
			const { list = 'open', after, ...filter } = query;
			const from = placeOf(after);
			if (isRefusal(from)) return from;
			const page = packetPage(house, account, { list, filter, ...(from && { after: from }) });
			return { items: page.rows.map(briefOf), next: cursorOf(page.next) };
		}
	}),
	operation({
		method: 'post',
		path: '/packets',
		right: 'send',
		does: 'Send a template',
		more: 'All that it asks for is judged as a row of a sheet is; nothing goes unless it is right. From documents of your own: make a draft, add them, send it.',
		body: FromTemplate,
		gives: Sent,
		status: 201,
		do: ({ house, account, body }) => {
			const given = givenFor(house, account, body);
			if (isRefusal(given)) return given;
			const sent = sendTemplate(house, account, body.template, given);
			return isRefusal(sent) ? sent : { id: sent.packet, reference: sent.reference };
		}
	}),
	operation({
		method: 'get',
		path: '/packets/{packet}',
		right: 'look',
		of: see,
		does: 'How a packet stands, and who has it',
		gives: PacketState,
		do: ({ house, part }) => {
			const view = packetView(house, part['packet']!);
			return isRefusal(view) ? view : stateOf(view);
		}
	}),
	operation({
		method: 'post',
		path: '/packets/{packet}/nudge',
		right: 'send',
		of: change,
		does: 'Nudge somebody, or everybody whom it waits for',
		more: 'Each at most once an hour.',
		body: Type.Object({ person: Type.Optional(Person) }, strict),
		gives: Done,
		do: ({ house, account, part, body }) =>
			done(
				body.person === undefined
					? nudgeAll(house, account, part['packet']!)
					: nudge(house, account, part['packet']!, body.person)
			)
	}),
	operation({
		method: 'post',
		path: '/packets/{packet}/withdraw',
		right: 'send',
		of: change,
		does: 'Withdraw it; those who have had it are told',
		body: Type.Object({ reason: Type.String({ minLength: 1, maxLength: 2000 }) }, strict),
		gives: Done,
		do: ({ house, account, part, body }) => done(withdraw(house, account, part['packet']!, body.reason))
	}),
	operation({
		method: 'post',
		path: '/packets/{packet}/address',
		right: 'send',
		of: change,
		does: 'Put somebody’s address right',
		more: 'Their old links end, and a new message goes.',
		body: Type.Object({ person: Person, email: Line(254) }, strict),
		gives: Done,
		do: ({ house, account, part, body }) =>
			done(correctAddress(house, account, part['packet']!, body.person, body.email))
	}),
	operation({
		method: 'post',
		path: '/packets/{packet}/deadline',
		right: 'send',
		of: change,
		does: 'Move its last day',
		body: Type.Object({ day: Day }, strict),
		gives: Done,
		do: ({ house, account, part, body }) => done(moveDeadline(house, account, part['packet']!, body.day))
	}),
	operation({
		method: 'post',
		path: '/packets/{packet}/link',
		right: 'send',
		of: change,
		does: 'A link for somebody, to be handed on by you',
		more: 'For those who are to be reached so. That it was taken stands in the record.',
		body: Type.Object({ person: Person }, strict),
		gives: Type.Object({ link: Type.String() }, strict),
		do: ({ house, account, part, body }) => takeLink(house, account, part['packet']!, body.person)
	})
];
