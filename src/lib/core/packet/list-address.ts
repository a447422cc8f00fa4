import { ENDINGS, SORTS, type Filter, type PacketList, type PacketsAsked, type Place, type Sort } from './list';

/** What a list's address asks for; whatever it doesn't know it leaves out, since addresses are typed and sent on. */
export function askedIn(list: PacketList, query: URLSearchParams): PacketsAsked {
	const text = (name: string) => query.get(name)?.slice(0, 200) || undefined;
	const only = text('only');
	const put = (['archive', 'bin'] as const).find((one) => one === text('put'));
	const how = ENDINGS.find((one) => one === text('how'));
	const day = (name: string) => (/^\d{4}-\d{2}-\d{2}$/.test(text(name) ?? '') ? text(name) : undefined);
	const days = Number.parseInt(query.get('days') ?? '', 10);
	const folder = query.get('folder');
	const filter: Filter = {
		...(list === 'open' && text('batch') && { batch: text('batch')! }),
		...(text('template') && { template: text('template')! }),
		...(folder !== null && { folder: folder === '-' ? '' : folder.slice(0, 200) }),
		...(text('sender') && { sender: text('sender')! }),
		...(text('type') && { type: text('type')! }),
		...(list === 'ended' && put && { put }),
		...(days > 0 && { days: Math.min(days, 3650) }),
		...(list === 'ended' && how && { how }),
		...(list === 'ended' && day('from') && { from: day('from')! }),
		...(list === 'ended' && day('to') && { to: day('to')! }),
		...((only === 'ending' || only === 'unreachable') && { only })
	};
	const sort = text('sort') as Sort | undefined;
	const after = placeOf(query.get('after'));
	return {
		list,
		...(sort && (SORTS[list] as readonly Sort[]).includes(sort) && { sort }),
		...(query.get('turned') === 'yes' && { turned: true }),
		filter,
		...(after && { after })
	};
}

/** A place, as an address has it: the row's number and the value, `12 2026-12-02T…`. */
export function placeOf(text: string | null): Place | undefined {
	const found = /^(\d{1,15}) (.{0,400})$/su.exec(text ?? '');
	return found ? { n: Number(found[1]), at: found[2]! } : undefined;
}

/** The same as a query, without the place. */
export function askedOf({ sort, turned, filter = {} }: PacketsAsked): URLSearchParams {
	const query = new URLSearchParams();
	if (sort) query.set('sort', sort);
	if (turned) query.set('turned', 'yes');
	for (const [name, value] of Object.entries(filter))
		query.set(name, name === 'folder' && value === '' ? '-' : String(value));
	return query;
}
