import type { Plan } from '../../core/packet';
import { refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts';
import type { House } from '../house';
import { planLookup } from '../packets/act';
import { MAY_SEE, seer } from './seeing';

/** The plan of a version as packets are made from it, naming it. Refuses `no-template` for one this account may not use. */
export function planOfVersion(house: House, account: Account, template: string, version: number): Plan | Refusal {
	const row = house.db
		.prepare<Record<string, string | number>, { plan: string }>(
			`SELECT v.plan FROM template_versions v JOIN templates t ON t.id = v.template
			 WHERE v.template = @template AND v.version = @version AND ${MAY_SEE}`
		)
		.get({ template, version, ...seer(house.db, account) });
	return row
		? { ...planLookup(house.db)(row.plan), from: [{ template, version }] }
		: refuse('no-template', 'This template is gone, or not shared with you.');
}
