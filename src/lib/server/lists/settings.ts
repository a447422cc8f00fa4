import { Type } from '@sinclair/typebox';
import { AWAY_AT_FIRST, LISTS, type List, type ListSettings } from '../../core/packet';
import { border } from '../border';
import type { Account } from '../accounts';
import type { House } from '../house';

const closed = { additionalProperties: false };
const View = Type.Object(
	{ name: Type.String({ minLength: 1, maxLength: 60 }), query: Type.String({ maxLength: 500 }) },
	closed
);

/** What may come from outside: which list, and what is to change of how it is. */
export const settingsIn = border(
	Type.Object(
		{
			list: Type.Union(LISTS.map((one) => Type.Literal(one))),
			hidden: Type.Optional(Type.Array(Type.String({ maxLength: 40 }), { maxItems: 20 })),
			views: Type.Optional(Type.Array(View, { maxItems: 20 }))
		},
		closed
	)
);

/** How an account has a list; as it comes where it has kept nothing. */
export function listSettings(house: House, account: Account, list: List): ListSettings {
	const kept = house.db
		.prepare<[string, string], string>('SELECT settings FROM list_settings WHERE account = ? AND list = ?')
		.pluck()
		.get(account.id, list);
	return kept ? (JSON.parse(kept) as ListSettings) : { hidden: [...AWAY_AT_FIRST[list]], views: [] };
}

/** Keeps what changes of it; the rest stays, whichever of two changes comes first. */
export function keepListSettings(house: House, account: Account, list: List, change: Partial<ListSettings>): void {
	const settings = { ...listSettings(house, account, list), ...change };
	house.db
		.prepare('INSERT OR REPLACE INTO list_settings (account, list, settings) VALUES (?, ?, ?)')
		.run(account.id, list, JSON.stringify(settings));
}
