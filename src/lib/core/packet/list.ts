import type { PutAway } from './state';

/** How lists of packets are asked for: in which order, from where on, and which of them. */

/** Out: longest wait, last day, title, sending, longest against what is usual. Over: when it ended, and every other column. The first is what a list has by itself. */
export const SORTS = {
	open: ['wait', 'until', 'title', 'sent', 'unusual'],
	ended: [
		'ended',
		'title',
		'sent',
		'reference',
		'own reference',
		'type',
		'folder',
		'people',
		'how',
		'term',
		'template',
		'sender',
		'size',
		'kept'
	]
} as const;
/** What comes last first, unless it is turned round; everything else from the least on. */
export const FROM_THE_END: readonly Sort[] = ['ended', 'sent', 'size', 'unusual'];
export type PacketList = keyof typeof SORTS;
export type Sort = (typeof SORTS)[PacketList][number];

/** Where a page ended: the value it is sorted by, and the row's own number. */
export interface Place {
	at: string;
	n: number;
}

/** How a packet can have ended. */
export const ENDINGS = ['completed', 'declined', 'withdrawn', 'expired'] as const;
export type Ending = (typeof ENDINGS)[number];

/** Which packets: all conditions hold at once; what is not given does not matter. */
export interface Filter {
	/** those of one batch, which stand in no other list of what is out */
	batch?: string;
	template?: string;
	/** '' for those in none */
	folder?: string;
	/** the account that has sent them */
	sender?: string;
	/** waiting for so many days or longer */
	days?: number;
	/** what the office sorts by */
	type?: string;
	/** of what has ended: in the archive or the bin; without it, what stands in the records */
	put?: PutAway;
	/** of what has ended: how, and on which days (ISO 8601, both included, by UTC) */
	how?: Ending;
	from?: string;
	to?: string;
	/** of one kind of trouble: the last day within three days; somebody who can't be reached */
	only?: 'ending' | 'unreachable';
}

export interface PacketsAsked {
	list: PacketList;
	sort?: Sort;
	/** the other way round than the order's own */
	turned?: boolean;
	filter?: Filter;
	after?: Place;
}

/** Lists whose look somebody may keep for themselves. */
export const LISTS = ['desk', 'records', 'templates'] as const;
export type List = (typeof LISTS)[number];

export interface ListSettings {
	/** columns, and whatever else of the page, put away */
	hidden: string[];
	/** named views: the query of the list's address */
	views: { name: string; query: string }[];
}

/** Columns that a list puts away until somebody says otherwise: few at first, the others are there for whoever wants them. */
export const AWAY_AT_FIRST: Record<List, readonly string[]> = {
	desk: ['folder', 'sender', 'sent'],
	records: ['kept', 'term', 'own reference', 'template', 'sender', 'sent', 'size', 'reference', 'copies'],
	templates: []
};
