import { beforeAll, describe, expect, it } from 'vitest';
import {
	askedIn,
	askedOf,
	FROM_THE_END,
	SORTS,
	type Filter,
	type PacketList,
	type PacketsAsked,
	type PutAway,
	type Sort
} from '../../core/packet';
import { NOTHING } from '../../core/folded';
import type { Account } from '../accounts';
import { memoryDb } from '../db';
import { houseOf, type House } from '../house';
import { keepListSettings, listSettings, packetPage, settingsIn } from './index';
import { isRefusal } from '../../core/refusal';

/** 500 packets whose titles, days and folders repeat, so that a page often ends among equals. */
const N = 500;
let house: House;
const account = (id: string, level: Account['level']): Account => ({ id, name: id, email: `${id}@x.example`, level });
const odile = account('odile', 'owner');
/** sees into no closed folder: what they sent and what they take part in, and whatever is open */
const mio = account('mio', 'preparer');

interface Made {
	id: string;
	n: number;
	title: string;
	at: Record<Sort, string>;
	over: boolean;
	folder: string;
	owner: string;
	template: string | null;
	part: boolean;
	put: PutAway | '';
}
/** by what else there is to put in order: the same of every packet */
const ELSE = Object.fromEntries([...SORTS.open, ...SORTS.ended].map((sort) => [sort, 'x'])) as Record<Sort, string>;
const made: Made[] = [];

beforeAll(() => {
	const db = memoryDb();
	house = houseOf(db, { folder: '', origin: '', key: '', demo: false, smtp: null, mailFrom: '' });
	const member = db.prepare(
		"INSERT INTO accounts (id, name, email, level, password, created_at) VALUES (?, ?, ?, ?, '', '')"
	);
	for (const one of [odile, mio]) member.run(one.id, one.name, one.email, one.level);
	db.prepare("INSERT INTO folders (name, open, made_at) VALUES ('Claims', 0, ''), ('Leases', 1, '')").run();
	const packet = db.prepare(
		`INSERT INTO packets (id, reference, owner, title, status, sent_at, since, deadline, ended_at, thread, unreachable, folder, template, put, unusual, sealed, events, head)
		 VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, '[]', ?, ?, ?, ?, ?, '{}', 1, '')`
	);
	const person = db.prepare(
		"INSERT INTO packet_people (packet, person, name, email, standing) VALUES (?, 'p', 'P', ?, 'done')"
	);
	const number = db.prepare('INSERT INTO packet_numbers (n, packet) VALUES (?, ?)');
	const order = db.prepare('INSERT INTO packet_order (put, sort, value, n) VALUES (?, ?, ?, ?)');
	const day = (n: number) => new Date(Date.UTC(2026, 9, 1 + (n % 37))).toISOString();
	db.transaction(() => {
		for (let i = 0; i < N; i++) {
			const id = `k${String(i).padStart(4, '0')}`;
			const one: Made = {
				id,
				n: i + 1,
				title: ['lease', 'Claim', 'engagement'][i % 3]!,
				at: {
					...ELSE,
					wait: day(i * 7),
					until: i % 5 === 0 ? '9999' : day(i * 3),
					sent: day(i),
					unusual: ((i % 11) / 11).toFixed(4),
					ended: day(i * 11),
					type: ['grant', NOTHING, 'lease'][i % 3]!,
					size: String((i * 37) % 90).padStart(15, '0')
				},
				over: i % 2 === 0,
				folder: ['', 'Claims', 'Leases', 'Claims'][i % 4]!,
				owner: i % 50 === 1 ? 'mio' : 'odile',
				template: i % 6 === 0 ? 't' : null,
				part: i % 60 === 3,
				put: ''
			};
			one.at.title = one.title.toLowerCase();
			one.put = one.over && i % 10 === 4 ? 'archive' : '';
			number.run(one.n, id);
			if (one.over) for (const sort of SORTS.ended) order.run(one.put, sort, one.at[sort], one.n);
			packet.run(
				id,
				`P-${i}`,
				one.owner,
				one.title,
				one.over ? 'completed' : 'out',
				one.at.sent,
				one.at.wait,
				one.at.until === '9999' ? null : one.at.until,
				one.over ? one.at.ended : null,
				i % 40 === 1 ? 1 : 0,
				one.folder,
				one.template,
				one.put || null,
				one.at.unusual
			);
			person.run(id, one.part ? mio.email : 'guest@x.example');
			made.push(one);
		}
	})();
});

/** All pages one after the other, as the screen fetches them. */
function through(who: Account, asked: PacketsAsked): string[] {
	const ids: string[] = [];
	let after = asked.after;
	for (let page = 0; page < 50; page++) {
		const { rows, next } = packetPage(house, who, { ...asked, ...(after && { after }) });
		ids.push(...rows.map(({ id }) => id));
		if (!next) return ids;
		after = next;
	}
	throw new Error('a list without an end');
}

const cases = (Object.keys(SORTS) as PacketList[]).flatMap((list) =>
	SORTS[list].flatMap((sort) => [false, true].map((turned) => ({ list, sort: sort as Sort, turned })))
);

describe.each([odile, mio])('the lists of an account that is $level', (who) => {
	it.each(cases)(
		'$list by $sort, turned: $turned, comes whole and in order, page by page',
		({ list, sort, turned }) => {
			for (const filter of [
				{},
				{ folder: 'Claims' },
				{ template: 't' },
				{ sender: 'mio' },
				{ put: 'archive' }
			] as Filter[]) {
				if (list === 'open' && filter.put) continue;
				const wanted = made
					.filter((one) => one.over === (list === 'ended') && one.put === (filter.put ?? ''))
					.filter((one) => who === odile || one.folder !== 'Claims' || one.owner === 'mio' || one.part)
					.filter((one) =>
						Object.entries(filter).every(
							([key, value]) => (key === 'sender' ? one.owner : one[key as 'folder']) === value
						)
					)
					.sort((a, b) => (a.at[sort] < b.at[sort] ? -1 : a.at[sort] > b.at[sort] ? 1 : a.n - b.n));
				if (FROM_THE_END.includes(sort) !== turned) wanted.reverse();
				expect(through(who, { list, sort, turned, filter })).toEqual(wanted.map(({ id }) => id));
			}
		}
	);
});

it('what is asked for by an address is understood, and what is not is left out', () => {
	const asked = askedIn(
		'open',
		new URLSearchParams('sort=title&turned=yes&folder=-&days=7&only=ending&after=12 a title&x=y')
	);
	expect(asked).toEqual({
		list: 'open',
		sort: 'title',
		turned: true,
		filter: { folder: '', days: 7, only: 'ending' },
		after: { n: 12, at: 'a title' }
	});
	expect(askedIn('open', askedOf(asked))).toEqual({ ...asked, after: undefined });
	expect(askedIn('ended', new URLSearchParams('sort=wait&after=x&days=-2&only=all'))).toEqual({
		list: 'ended',
		filter: {}
	});
});

it('columns and views are kept by account, and odd ones refused', () => {
	const first = { hidden: ['folder', 'sender', 'sent'], views: [] };
	expect(listSettings(house, odile, 'desk')).toEqual(first);
	const given = settingsIn({ list: 'desk', hidden: ['sent'], views: [{ name: 'Late', query: 'days=7' }] });
	if (isRefusal(given)) throw new Error(given.say);
	const { list, ...settings } = given;
	keepListSettings(house, odile, list, settings);
	expect(listSettings(house, odile, 'desk')).toEqual(settings);
	// a change of one leaves the other, whichever comes first; and all columns can be shown
	keepListSettings(house, odile, list, { hidden: [] });
	expect(listSettings(house, odile, 'desk')).toEqual({ hidden: [], views: settings.views });
	keepListSettings(house, mio, list, { views: settings.views! });
	expect(listSettings(house, mio, 'desk')).toEqual({ ...first, views: settings.views });
	expect(isRefusal(settingsIn({ list: 'passwords', hidden: [], views: [] }))).toBe(true);
});
