import { Type } from '@sinclair/typebox';
import { isAddress, type SentPacket } from '../../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../../core/refusal';
import { Line } from '../../../core/schema';
import type { House } from '../../house';
import { packetState } from '../../packets/act';
import { copiesOf, copyFile } from '../../packets/copies';
import { answersAsJson } from '../../packets/data';
import { auditRecord } from '../../packets/log';
import { recordFetch } from '../../packets/office';
import { packetsOf, records } from '../../records';
import { cursorOf, placeOf } from '../cursors';
import { FileAnswer, operation } from '../operation';
import { After, pageOf, strict } from '../schemas';
import { CopyShape, PacketBrief, PersonData } from '../shapes';
import { briefOf } from './packets';

const of = { part: 'packet', kind: 'packet', doing: 'see' } as const;

function packetIn(house: House, id: string): SentPacket | Refusal {
	const packet = packetState(house.db, id);
	return packet.status === 'none' ? refuse('no-packet', 'There is no such packet.') : packet;
}

export const record = [
	operation({
		method: 'get',
		path: '/packets/{packet}/record',
		right: 'record',
		of,
		does: 'Its record: every event with the hash that binds it to those before',
		gives: Type.Object({ format: Type.String() }),
		do: ({ house, part }) => {
			const packet = packetIn(house, part['packet']!);
			return isRefusal(packet) ? packet : auditRecord(house.db, packet.packet);
		}
	}),
	operation({
		method: 'get',
		path: '/packets/{packet}/answers',
		right: 'record',
		of,
		does: 'What people have answered, by key',
		more: 'Numbers stand as text in plain decimal notation, so that none is rounded.',
		gives: Type.Record(Type.String(), Type.Union([Type.String(), Type.Array(Type.String())])),
		do: ({ house, part }) => {
			const packet = packetIn(house, part['packet']!);
			return isRefusal(packet) ? packet : (JSON.parse(answersAsJson(packet)) as Record<string, string>);
		}
	}),
	operation({
		method: 'get',
		path: '/packets/{packet}/copies',
		right: 'record',
		of,
		does: 'What can be had of it, once it is sealed',
		gives: pageOf(CopyShape),
		do: ({ house, part }) => {
			const packet = packetIn(house, part['packet']!);
			return isRefusal(packet) ? packet : { items: copiesOf(house.db, packet), next: null };
		}
	}),
	operation({
		method: 'get',
		path: '/packets/{packet}/copies/{copy}',
		right: 'record',
		of,
		does: 'A sealed copy, the evidence sheet, or a file that was handed in',
		gives: { file: ['application/pdf', 'application/octet-stream'] },
		do: ({ house, account, part }) => {
			const packet = packetIn(house, part['packet']!);
			if (isRefusal(packet)) return packet;
			const file = copyFile(house, packet, part['copy']!);
			if (!file) return refuse('no-copy', 'There is no such copy, or it is not sealed yet.');
			recordFetch(house, account, packet.packet, file.name);
			return new FileAnswer(file.bytes, file.media, file.name);
		}
	}),
	operation({
		method: 'get',
		path: '/records',
		right: 'record',
		does: 'Find what is over, by its words',
		more: 'Words of the title, of people’s names, of answers and of the documents; without any, the last ended first.',
		query: Type.Object({ search: Type.Optional(Type.String({ maxLength: 200 })), after: After }, strict),
		gives: pageOf(PacketBrief),
		do: ({ house, account, query }) => {
			const from = placeOf(query.after);
			if (isRefusal(from)) return from;
			const page = records(house, account, query.search ?? '', { list: 'ended', ...(from && { after: from }) });
			return { items: page.rows.map(briefOf), next: cursorOf(page.next) };
		}
	}),
	operation({
		method: 'get',
		path: '/people',
		right: 'record',
		does: 'What is known of a person: the packets they take or took part in',
		query: Type.Object({ email: Line(254) }, strict),
		gives: PersonData,
		do: ({ house, account, query }) => {
			if (!isAddress(query.email))
				return refuse('bad-address', `“${query.email}” can't be an e-mail address.`, 'email');
			const packets = packetsOf(house, account, query.email, 500);
			return {
				email: query.email,
				packets: packets.map(({ id, reference, title, status, sentAt, name }) => ({
					id,
					reference,
					title,
					status,
					sentAt,
					name
				}))
			};
		}
	})
];
