import { FROM_THE_END, SORTS, type Filter, type PacketsAsked, type Place, type Sort } from '../../core/packet';
import type { Account } from '../accounts';
import { inOrder, looker, MAY_SEE_PACKET } from '../folders';
import type { House } from '../house';
import { PAGE, rowsOf, type PacketRow } from '../packets/rows';
import { usually } from '../pace';

/** A packet in a list, with what is usual for its template: half of those sent are done within so many hours. */
export type ListedPacket = PacketRow & { usualHours: number | null };

/** A page of packets; `next` is where to go on, null at the end. A page may be short, or empty, with more to come. */
export interface PacketPage {
	rows: ListedPacket[];
	next: Place | null;
}

/** So many rows are looked at for one page: whoever filters for few among many asks again, and nobody waits for it. */
const LOOKED_AT = 2000;

const LAST = Number.MAX_SAFE_INTEGER;
const FIRST_UP: Place = { at: '', n: -1 };
const FIRST_DOWN: Place = { at: '\u{10ffff}', n: LAST };

/**
 * A page of packets that this account may see, in the order wanted, from where the one before ended: by key, so that what comes
 * and goes meanwhile moves nothing.
 */
export function packetPage(house: House, account: Account, asked: PacketsAsked): PacketPage {
	const { list, filter = {} } = asked;
	// the packets of one batch have an index of their own, in one order
	const of = list === 'open' && filter.batch !== undefined;
	const sort = of ? SORTS[list][0] : (asked.sort ?? SORTS[list][0]);
	const down = FROM_THE_END.includes(sort) !== (asked.turned ?? false);
	const places =
		sort === SORTS[list][0] && !asked.turned && Object.keys(filter).length === 0
			? inOrder(house.db, account, list, PAGE, asked.after ?? null)
			: null;
	const { found, next } = places
		? { found: places, next: places.length === PAGE ? places[places.length - 1]! : null }
		: walked(
				house,
				account,
				`${of ? 'batch' : list === 'ended' ? list : `${list} ${sort}`} ${down ? 'down' : 'up'}`,
				sort,
				filter,
				asked.after ?? (down ? FIRST_DOWN : FIRST_UP)
			);
	const usual = usually(house);
	const ids = found.map(({ id }) => id);
	return {
		rows: rowsOf(house.db, ids).map((row) => ({
			...row,
			usualHours: row.template ? usual(row.template) : null
		})),
		next: next && { at: next.at, n: next.n }
	};
}

interface Walked extends Place {
	id: string;
}

/** Along one index, in its order, no further than {@link LOOKED_AT}. */
function walked(
	house: House,
	account: Account,
	order: string,
	sort: Sort,
	filter: Filter,
	after: Place
): { found: Walked[]; next: Walked | null } {
	// each index named, so that no planner ever walks or sorts all there is
	const along = {
		'open wait up': {
			from: 'p.rowid AS n, p.since AS at FROM packets p INDEXED BY packets_open WHERE p.ended_at IS NULL AND p.batch IS NULL AND (p.since, p.rowid) > (@at, @n) ORDER BY p.since, p.rowid'
		},
		'open wait down': {
			from: 'p.rowid AS n, p.since AS at FROM packets p INDEXED BY packets_open WHERE p.ended_at IS NULL AND p.batch IS NULL AND (p.since, p.rowid) < (@at, @n) ORDER BY p.since DESC, p.rowid DESC'
		},
		'open until up': {
			from: "p.rowid AS n, coalesce(p.deadline, '9999') AS at FROM packets p INDEXED BY packets_open_until WHERE p.ended_at IS NULL AND p.batch IS NULL AND (coalesce(p.deadline, '9999'), p.rowid) > (@at, @n) ORDER BY coalesce(p.deadline, '9999'), p.rowid"
		},
		'open until down': {
			from: "p.rowid AS n, coalesce(p.deadline, '9999') AS at FROM packets p INDEXED BY packets_open_until WHERE p.ended_at IS NULL AND p.batch IS NULL AND (coalesce(p.deadline, '9999'), p.rowid) < (@at, @n) ORDER BY coalesce(p.deadline, '9999') DESC, p.rowid DESC"
		},
		'open title up': {
			from: 'p.rowid AS n, p.title AS at FROM packets p INDEXED BY packets_open_title WHERE p.ended_at IS NULL AND p.batch IS NULL AND (p.title COLLATE NOCASE, p.rowid) > (@at, @n) ORDER BY p.title COLLATE NOCASE, p.rowid'
		},
		'open title down': {
			from: 'p.rowid AS n, p.title AS at FROM packets p INDEXED BY packets_open_title WHERE p.ended_at IS NULL AND p.batch IS NULL AND (p.title COLLATE NOCASE, p.rowid) < (@at, @n) ORDER BY p.title COLLATE NOCASE DESC, p.rowid DESC'
		},
		'open sent up': {
			from: 'p.rowid AS n, p.sent_at AS at FROM packets p INDEXED BY packets_open_sent WHERE p.ended_at IS NULL AND p.batch IS NULL AND (p.sent_at, p.rowid) > (@at, @n) ORDER BY p.sent_at, p.rowid'
		},
		'open sent down': {
			from: 'p.rowid AS n, p.sent_at AS at FROM packets p INDEXED BY packets_open_sent WHERE p.ended_at IS NULL AND p.batch IS NULL AND (p.sent_at, p.rowid) < (@at, @n) ORDER BY p.sent_at DESC, p.rowid DESC'
		},
		'open unusual up': {
			from: 'p.rowid AS n, p.unusual AS at FROM packets p INDEXED BY packets_open_unusual WHERE p.ended_at IS NULL AND p.batch IS NULL AND (p.unusual, p.rowid) > (@at, @n) ORDER BY p.unusual, p.rowid'
		},
		'open unusual down': {
			from: 'p.rowid AS n, p.unusual AS at FROM packets p INDEXED BY packets_open_unusual WHERE p.ended_at IS NULL AND p.batch IS NULL AND (p.unusual, p.rowid) < (@at, @n) ORDER BY p.unusual DESC, p.rowid DESC'
		},
		'batch up': {
			from: 'p.rowid AS n, p.since AS at FROM packets p INDEXED BY packets_in_batch WHERE p.batch = @batch AND p.ended_at IS NULL AND (p.since, p.rowid) > (@at, @n) ORDER BY p.since, p.rowid'
		},
		'batch down': {
			from: 'p.rowid AS n, p.since AS at FROM packets p INDEXED BY packets_in_batch WHERE p.batch = @batch AND p.ended_at IS NULL AND (p.since, p.rowid) < (@at, @n) ORDER BY p.since DESC, p.rowid DESC'
		},
		'ended up': {
			from: 'o.n, o.value AS at FROM packet_order o CROSS JOIN packet_numbers m ON m.n = o.n CROSS JOIN packets p ON p.id = m.packet WHERE o.put = @lies AND o.sort = @sort AND (o.value, o.n) > (@at, @n) ORDER BY o.value, o.n'
		},
		'ended down': {
			from: 'o.n, o.value AS at FROM packet_order o CROSS JOIN packet_numbers m ON m.n = o.n CROSS JOIN packets p ON p.id = m.packet WHERE o.put = @lies AND o.sort = @sort AND (o.value, o.n) < (@at, @n) ORDER BY o.value DESC, o.n DESC'
		}
	}[order]!;
	const given = {
		...looker(house.db, account),
		...fittingTo(house, filter),
		at: after.at,
		n: after.n,
		sort,
		lies: filter.put ?? '',
		most: LOOKED_AT,
		batch: filter.batch ?? null
	};
	const found: Walked[] = [];
	let seen = 0;
	let last: Walked | null = null;
	for (const row of house.db
		.prepare<[typeof given], Walked & { fits: 0 | 1 }>(
			`SELECT p.id, (${FITS} AND ${MAY_SEE_PACKET}) AS fits, ${along.from} LIMIT @most`
		)
		.iterate(given)) {
		seen += 1;
		last = row;
		if (row.fits) found.push(row);
		if (found.length === PAGE) return { found, next: row };
	}
	return { found, next: seen === LOOKED_AT ? last : null };
}

/** Whether `packets p` fits a filter, by the values of {@link fittingTo}. */
export const FITS = `(@template IS NULL OR p.template = @template) AND (@folder IS NULL OR p.folder = @folder)
	AND (@sender IS NULL OR p.owner = @sender) AND (@waiting IS NULL OR p.since < @waiting)
	AND (@ending IS NULL OR (p.status = 'out' AND p.deadline < @ending)) AND (@unreachable IS NULL OR p.unreachable = 1)
	AND (@type IS NULL OR p.type = @type COLLATE NOCASE)
	AND (@how IS NULL OR p.status = @how) AND (@from IS NULL OR p.ended_at >= @from) AND (@to IS NULL OR p.ended_at < @to)`;

export function fittingTo(house: House, filter: Filter): Record<string, string | number | null> {
	const now = house.now().getTime();
	const after = (days: number, from = now) => new Date(from + days * 86_400_000).toISOString();
	return {
		template: filter.template ?? null,
		folder: filter.folder ?? null,
		sender: filter.sender ?? null,
		waiting: filter.days === undefined ? null : after(-filter.days),
		ending: filter.only === 'ending' ? after(3) : null,
		unreachable: filter.only === 'unreachable' ? 1 : null,
		type: filter.type ?? null,
		how: filter.how ?? null,
		from: filter.from ?? null,
		// the whole of that day
		to: filter.to && !Number.isNaN(Date.parse(filter.to)) ? after(1, Date.parse(filter.to)) : null
	};
}
