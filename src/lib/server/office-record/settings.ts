import { isRefusal, type Refusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { organisation, setOrganisation, type Organisation } from '../settings';
import { note, type Doer } from './index';

/** Changes the organisation and tells the record what was changed. Refuses what {@link setOrganisation} does. */
export function changeOrganisation(house: House, by: Doer, wanted: Organisation): Organisation | Refusal {
	return inTransaction(house.db, () => {
		const before: Record<string, unknown> = { ...organisation(house.db) };
		const set = setOrganisation(house.db, wanted);
		if (isRefusal(set)) return set;
		const now: Record<string, unknown> = { ...set };
		const names = Object.keys({ ...before, ...now }).filter((name) => (before[name] ?? false) !== (now[name] ?? false));
		const part = (of: Record<string, unknown>) => Object.fromEntries(names.map((name) => [name, of[name] ?? false]));
		if (names.length > 0)
			note(house, by, { type: 'SettingsChanged', what: 'the organisation', from: part(before), to: part(now) });
		return set;
	});
}
