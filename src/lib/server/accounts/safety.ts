import { Type, type Static } from '@sinclair/typebox';
import { isRefusal, type Refusal } from '../../core/refusal';
import { border } from '../border';
import type { Db } from '../db';
import type { House } from '../house';
import { note, type Doer } from '../office-record';
import { readSetting, writeSetting } from '../settings';
import { LEVELS } from './levels';

/** What the owner asks of everybody who signs in. */
const Safety = Type.Object(
	{
		/** levels whose accounts need a second factor */
		second: Type.Array(Type.Union(LEVELS.map((level) => Type.Literal(level))), { uniqueItems: true }),
		/** a session that nobody uses ends after so many hours, any session after so many days */
		idleHours: Type.Integer({ minimum: 1, maximum: 72 }),
		longestDays: Type.Integer({ minimum: 1, maximum: 30 })
	},
	{ additionalProperties: false }
);
type Safety = Static<typeof Safety>;
const safetyBorder = border(Safety);

const DEFAULT: Safety = { second: [], idleHours: 12, longestDays: 7 };

export function safety(db: Db): Safety {
	const stored = readSetting(db, 'safety');
	return stored === undefined ? DEFAULT : (JSON.parse(stored) as Safety);
}

export function setSafety(house: House, by: Doer, wanted: unknown): Safety | Refusal {
	const checked = safetyBorder(wanted);
	if (isRefusal(checked)) return checked;
	note(house, by, { type: 'SettingsChanged', what: 'signing in', from: { ...safety(house.db) }, to: { ...checked } });
	writeSetting(house.db, 'safety', JSON.stringify(checked));
	return checked;
}
