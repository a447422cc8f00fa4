import { createHash } from 'node:crypto';
import {
	canonicalJson,
	extend,
	GENESIS,
	grown,
	inclusionProof,
	leafHash,
	rootOf,
	type AuditRecord
} from '../../src/lib/core/audit';

const hex = (data: string | Uint8Array) => createHash('sha256').update(data).digest('hex');

/** A sound record of so many events. */
export function recordOf(events: number): AuditRecord {
	const plan = canonicalJson({ title: 'Test' });
	const bodies = Array.from({ length: events }, (_, n) =>
		canonicalJson(
			n === 0
				? { n, type: 'PacketSent', packet: 'k', reference: 'P-7K3QM', plan: hex(plan) }
				: { n, type: 'StopOpened' }
		)
	);
	const links = extend(hex, GENESIS, bodies);
	const levels: string[][] = [[]];
	const at = (level: number, index: number) => levels[level]![index]!;
	links.forEach((link, size) => {
		for (const node of grown(hex, size, leafHash(hex, link.hash), at))
			(levels[node.level] ??= [])[node.index] = node.hash;
	});
	const leaf = events - 1;
	return {
		format: 'pellum-audit-record/1',
		packet: 'k',
		reference: 'P-7K3QM',
		plan,
		links,
		tree: { leaf, size: events, root: rootOf(hex, events, at), path: inclusionProof(hex, leaf, events, at) }
	};
}
