import { canonicalJson } from './canonical';
import { firstBroken, GENESIS, type Sha256 } from './chain';
import { leafHash, proves, type Sha256Bytes } from './merkle';

/**
 * The audit record as it rides inside a sealed copy: complete up to the moment of sealing, and provable with
 * nothing but SHA-256. `docs/record.md` describes it for those who check it with their own tools.
 */
export interface AuditRecord {
	format: 'pellum-audit-record/1';
	packet: string;
	reference: string;
	/** the frozen plan, as canonical JSON, and what the first event calls it */
	plan: string;
	/** the plans that took its place by corrections and returns on paper, in their order; left out where there were none */
	corrected?: string[];
	/** each link: the event as canonical JSON and its hash */
	links: { body: string; hash: string }[];
	/** where the last link stands in the tree over all events of this Pellum, at the moment of sealing */
	tree: { leaf: number; size: number; root: string; path: string[] };
}

/** Events that name a plan that holds from then on. */
const NAME_PLANS = ['PacketSent', 'PlanCorrected', 'ReturnAccepted', 'FieldsPlaced', 'ActDrawn'];

/** The digests of the plans that events name: the one that was sent, then one for each correction, and each return on paper. */
export function plansOf(events: readonly Record<string, unknown>[]): string[] {
	return events.flatMap((event) => (NAME_PLANS.includes(String(event['type'])) ? [String(event['plan'])] : []));
}

/** Events that are earlier than the one before them, a sentence each. */
export function backwards(events: readonly Record<string, unknown>[]): string[] {
	return events.flatMap((event, i) =>
		i > 0 && String(event['at']) < String(events[i - 1]!['at'])
			? [`Event ${i + 1} is said to be earlier than the one before it.`]
			: []
	);
}

/** What is wrong with a record, a sentence each; empty when it is sound. */
export function faultsOf(record: AuditRecord, sha256: Sha256, sha256Bytes: Sha256Bytes): string[] {
	const faults: string[] = [];
	if (record.links.length === 0) return ['The record is empty.'];
	const broken = firstBroken(sha256, record.links, GENESIS);
	if (broken >= 0) faults.push(`Event ${broken + 1} of the record does not follow from those before it.`);
	const events = record.links.map((link) => JSON.parse(link.body) as Record<string, unknown>);
	events.forEach((event, i) => {
		if (event['n'] !== i) faults.push(`Event ${i + 1} is numbered ${String(event['n'])}.`);
		if (canonicalJson(event) !== record.links[i]!.body) faults.push(`Event ${i + 1} is not written canonically.`);
	});
	faults.push(...backwards(events));
	const first = events[0]!;
	if (first['type'] !== 'PacketSent' || first['reference'] !== record.reference || first['packet'] !== record.packet)
		faults.push('The record is not the one of this packet.');
	const plans = plansOf(events);
	if (plans[0] !== sha256(record.plan)) faults.push('The plan is not the one that was sent.');
	const corrected = (record.corrected ?? []).map(sha256);
	if (canonicalJson(corrected) !== canonicalJson(plans.slice(1)))
		faults.push('The corrected plans are not those that the record names.');
	const last = record.links[record.links.length - 1]!;
	if (!proves(sha256Bytes, record.tree, leafHash(sha256Bytes, last.hash), record.tree.root))
		faults.push('The record is not part of the tree it names.');
	return faults;
}
