import { isoDay } from '../../core/calendar';
import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { judged, type Facts, type Verdict } from '../../core/sheet';
import { used } from '../../core/template';
import type { Account } from '../accounts';
import type { House } from '../house';
import { organisation } from '../settings';
import { planForUse } from '../templates';
import { documentsFor } from './documents';
import type { Batch } from './store';

/** What becomes of each row of a batch. */

export interface Judged {
	plan: Plan;
	title: string;
	verdicts: Verdict[];
}
const remembered = new WeakMap<object, Map<string, { key: string; judged: Judged }>>();
/** So many batches are remembered as they were judged last. */
const MOST_REMEMBERED = 20;

/** What becomes of each row, by the template as it is now. Judged once for each change of the batch, the template or the day. */
export function verdictsOf(house: House, account: Account, batch: Batch): Judged | Refusal {
	const found = planForUse(house, account, batch.template);
	if (isRefusal(found)) return found;
	const today = isoDay(organisation(house.db).zone, house.now().toISOString());
	const known = remembered.get(house.db) ?? new Map<string, { key: string; judged: Judged }>();
	remembered.set(house.db, known);
	const key = [batch.revision, found.plan.from?.[0]?.version, today, account.email].join(' ');
	const before = known.get(batch.id);
	if (before?.key === key) return before.judged;
	const facts: Facts = {
		...factsOf(house, account, batch.id, today),
		...(batch.documents && { documents: documentsFor(house, batch.id, found.plan.from?.[0]?.version ?? 0) })
	};
	const verdicts = judged(found.plan, batch.sheet, batch.setting, facts);
	known.delete(batch.id);
	known.set(batch.id, { key, judged: { ...found, verdicts } });
	if (known.size > MOST_REMEMBERED) known.delete(known.keys().next().value!);
	return { ...found, verdicts };
}

/** What one row would send, to be rehearsed: nothing is made of it. Refuses `no-cell` where it is not ready. */
export function planOfRow(house: House, account: Account, batch: Batch, n: number): Plan | Refusal {
	const found = verdictsOf(house, account, batch);
	if (isRefusal(found)) return found;
	const verdict = found.verdicts[n];
	if (verdict?.is !== 'ready') return refuse('no-cell', 'This row is not ready, so there is nothing to rehearse yet.');
	return used(found.plan, verdict.given);
}

function factsOf(house: House, account: Account, id: string, today: string): Facts {
	const gone = house.db
		.prepare<[string], { who: string; packet: string; brought: string }>(
			'SELECT who, packet, brought FROM batch_packets WHERE batch = ?'
		)
		.all(id);
	return {
		own: account.email,
		today,
		gone: new Map(
			gone.map(({ who, packet, brought }) => [who, { packet, brought: JSON.parse(brought) as Record<string, string> }])
		)
	};
}
