import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	canonicalJson,
	consistencyProof,
	extend,
	firstBroken,
	GENESIS,
	grown,
	inclusionProof,
	isConsistent,
	leafHash,
	rootOf
} from './index';
import { nodeHash, proves } from './merkle';

const hex = (data: string | Uint8Array) => createHash('sha256').update(data).digest('hex');

/** RFC 9162 §2.1.1, written down as it stands there, from the leaves alone. */
function plainRoot(leaves: string[]): string {
	if (leaves.length === 0) return hex('');
	if (leaves.length === 1) return leaves[0]!;
	let k = 1;
	while (k * 2 < leaves.length) k *= 2;
	return nodeHash(hex, plainRoot(leaves.slice(0, k)), plainRoot(leaves.slice(k)));
}

function treeOf(data: string[]) {
	const levels: string[][] = [[]];
	const at = (level: number, index: number) => {
		const found = levels[level]?.[index];
		if (found === undefined) throw new Error(`node ${level}/${index} was never kept`);
		return found;
	};
	const leaves = data.map((d) => leafHash(hex, d));
	leaves.forEach((leaf, size) => {
		for (const node of grown(hex, size, leaf, at)) (levels[node.level] ??= [])[node.index] = node.hash;
	});
	return { leaves, at };
}

const datas = fc.array(
	fc.integer({ min: 0, max: 2 ** 30 }).map((n) => hex(String(n))),
	{ minLength: 1, maxLength: 70 }
);

describe('canonical JSON (RFC 8785)', () => {
	it('writes members in order, numbers shortest, and refuses what JSON has not', () => {
		expect(canonicalJson({ b: 1.0, a: 'é\u0001', c: [1e21, 0.000001, -0] })).toBe(
			'{"a":"é\\u0001","b":1,"c":[1e+21,0.000001,0]}'
		);
		expect(() => canonicalJson({ a: NaN })).toThrow();
		expect(() => canonicalJson(undefined)).toThrow();
	});
	it('reads back to itself', () => {
		fc.assert(
			fc.property(fc.jsonValue(), (value) => {
				const text = canonicalJson(value);
				expect(canonicalJson(JSON.parse(text))).toBe(text);
			})
		);
	});
});

describe('chain', () => {
	it('is broken by any change, and says where', () => {
		fc.assert(
			fc.property(fc.array(fc.string(), { minLength: 1, maxLength: 20 }), fc.nat(), (bodies, pick) => {
				const links = extend(hex, GENESIS, bodies);
				expect(firstBroken(hex, links)).toBe(-1);
				const at = pick % links.length;
				const forged = links.map((link, i) => (i === at ? { ...link, body: link.body + ' ' } : link));
				expect(firstBroken(hex, forged)).toBe(at);
				if (links.length > 1) {
					const cut = links.filter((_, i) => i !== at);
					expect(firstBroken(hex, cut)).toBe(at < cut.length ? at : -1);
				}
			})
		);
	});
	it('goes on where it stopped', () => {
		const whole = extend(hex, GENESIS, ['a', 'b', 'c']);
		const first = extend(hex, GENESIS, ['a']);
		expect([...first, ...extend(hex, first[0]!.hash, ['b', 'c'])]).toEqual(whole);
	});
});

describe('tree over all events (RFC 9162)', () => {
	it('has the root that the standard defines, at every size', () => {
		fc.assert(
			fc.property(datas, (data) => {
				const { leaves, at } = treeOf(data);
				for (let size = 0; size <= leaves.length; size++)
					expect(rootOf(hex, size, at)).toBe(plainRoot(leaves.slice(0, size)));
			}),
			{ numRuns: 30 }
		);
	});
	it('proves every leaf and nothing else', () => {
		fc.assert(
			fc.property(datas, fc.nat(), (data, pick) => {
				const { leaves, at } = treeOf(data);
				const size = leaves.length;
				const leaf = pick % size;
				const root = rootOf(hex, size, at);
				const proof = { leaf, size, path: inclusionProof(hex, leaf, size, at) };
				expect(proves(hex, proof, leaves[leaf]!, root)).toBe(true);
				expect(proves(hex, proof, hex('another'), root)).toBe(false);
				expect(proves(hex, { ...proof, leaf: size }, leaves[leaf]!, root)).toBe(false);
				expect(proves(hex, { ...proof, path: [...proof.path, hex('more')] }, leaves[leaf]!, root)).toBe(false);
				if (proof.path.length > 0)
					expect(proves(hex, { ...proof, path: proof.path.slice(1) }, leaves[leaf]!, root)).toBe(false);
			})
		);
	});
});

describe('a later tree begins with an earlier one', () => {
	const datas = Array.from({ length: 33 }, (_, i) => hex(String(i)));
	const { at: nodes } = treeOf(datas);
	const head = (size: number) => ({ size, root: rootOf(hex, size, nodes) });

	it('for every pair of sizes up to 33', () => {
		for (let to = 1; to <= 33; to++)
			for (let from = 1; from <= to; from++) {
				const proof = consistencyProof(hex, from, to, nodes);
				expect(isConsistent(hex, head(from), head(to), proof), `${from} to ${to}`).toBe(true);
				expect(proof.length).toBeLessThanOrEqual(2 * Math.ceil(Math.log2(to)) + 1);
			}
		expect(isConsistent(hex, { size: 0, root: '' }, head(5), [])).toBe(true);
	});
	it('and not where anything of the earlier one is another', () => {
		for (const [from, to] of [
			[1, 2],
			[4, 9],
			[7, 8],
			[6, 33],
			[31, 32]
		] as const) {
			const proof = consistencyProof(hex, from, to, nodes);
			const other = treeOf(datas.with(from - 1, hex('another'))).at;
			const rewritten = { size: to, root: rootOf(hex, to, other) };
			expect(isConsistent(hex, head(from), rewritten, proof)).toBe(false);
			expect(isConsistent(hex, head(from), rewritten, consistencyProof(hex, from, to, other))).toBe(false);
			expect(isConsistent(hex, head(from), head(to), proof.slice(1))).toBe(false);
			expect(isConsistent(hex, head(from), head(to), [...proof, proof[0]!])).toBe(false);
			expect(isConsistent(hex, head(to), head(from), proof)).toBe(false);
		}
	});
});
