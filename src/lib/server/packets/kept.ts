import { isoDay } from '../../core/calendar';
import { keptUntil, type Kept, type RetentionRule } from '../../core/keeping';
import { isOpen, termEndOf, type SentPacket } from '../../core/packet';
import type { Db } from '../db';
import { chainIds } from '../amending/chain';
import { answersByKey } from './data';
import { packetState } from './state';

/** How long a packet is kept, by the office's rules as they are now. */

/** The rules by name. */
export const retentionRules = (db: Db): RetentionRule[] =>
	db
		.prepare<[], Omit<RetentionRule, 'yearEnd'> & { yearEnd: number }>(
			`SELECT id, name, by, of, years, begins AS "from", key, year_end AS yearEnd, ends AS "then" FROM retention_rules ORDER BY name`
		)
		.all()
		.map((row) => ({ ...row, yearEnd: row.yearEnd === 1 }));

/** By the rules alone. */
export function keptByRules(db: Db, state: SentPacket): Kept | null {
	if (isOpen(state)) return null;
	const rules = retentionRules(db);
	if (rules.length === 0) return null;
	let answers: Record<string, string> | undefined;
	return keptUntil(rules, {
		ended: isoDay(state.zone, state.at),
		termEnd: termEndOf(state),
		type: state.type,
		folder: state.folder,
		template: state.plan.from?.[0]?.template ?? null,
		answer: (key) => (answers ??= answersByKey(state))[key]
	});
}

/** As the lists have it: somebody's word before the rules; the whole of a chain for as long as its last part. */
export function keptOf(db: Db, state: SentPacket): { keptUntil: string | null; keptBy: string } {
	const own = ownKept(db, state);
	if (!state.amended && !state.plan.amends) return own;
	const others = chainIds(db, state.packet)
		.filter((id) => id !== state.packet)
		.flatMap((id) => {
			const other = packetState(db, id);
			return other.status === 'completed' ? [ownKept(db, other)] : [];
		});
	return [own, ...others].reduce((longest, one) => ((one.keptUntil ?? '') > (longest.keptUntil ?? '') ? one : longest));
}

function ownKept(db: Db, state: SentPacket): { keptUntil: string | null; keptBy: string } {
	if (state.keep && !isOpen(state)) return { keptUntil: state.keep.until, keptBy: '' };
	const kept = keptByRules(db, state);
	return { keptUntil: kept?.until ?? null, keptBy: kept?.rule.id ?? '' };
}
