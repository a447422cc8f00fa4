/**
 * The Merkle tree over all events of a Pellum, in the order they were written, hashed as RFC 9162 §2.1:
 * a leaf is SHA-256(0x00 ‖ data), a node SHA-256(0x01 ‖ left ‖ right). Hashes are hexadecimal here.
 *
 * Only complete nodes are kept (a complete node never changes again), so that a tree of n leaves needs
 * about n rows and appending one leaf writes one row on average.
 */
export type Sha256Bytes = (bytes: Uint8Array) => string;

/** Looks up a complete node: level 0 is the leaves; node i of level l covers leaves i·2^l to (i+1)·2^l − 1. */
export type NodeAt = (level: number, index: number) => string;

export interface TreeNode {
	level: number;
	index: number;
	hash: string;
}

export function leafHash(sha256: Sha256Bytes, dataHex: string): string {
	return sha256(joined(0, dataHex));
}

export function nodeHash(sha256: Sha256Bytes, left: string, right: string): string {
	return sha256(joined(1, left + right));
}

/** The complete nodes that come into being when leaf number `size` (counted from 0) is appended. */
export function grown(sha256: Sha256Bytes, size: number, leaf: string, at: NodeAt): TreeNode[] {
	const nodes: TreeNode[] = [{ level: 0, index: size, hash: leaf }];
	let level = 0;
	let index = size;
	let hash = leaf;
	while (index % 2 === 1) {
		hash = nodeHash(sha256, at(level, index - 1), hash);
		level += 1;
		index = (index - 1) / 2;
		nodes.push({ level, index, hash });
	}
	return nodes;
}

/** Root of the first `size` leaves (RFC 9162 §2.1.1); of none, the hash of the empty string. */
export function rootOf(sha256: Sha256Bytes, size: number, at: NodeAt): string {
	return size === 0 ? sha256(new Uint8Array()) : spanHash(sha256, 0, size, at);
}

/** The audit path of leaf `leaf` in the tree of the first `size` leaves (RFC 9162 §2.1.3.1), lowest first. */
export function inclusionProof(sha256: Sha256Bytes, leaf: number, size: number, at: NodeAt): string[] {
	const path: string[] = [];
	let from = 0;
	let to = size;
	while (to - from > 1) {
		const middle = from + split(to - from);
		if (leaf < middle) {
			path.push(spanHash(sha256, middle, to, at));
			to = middle;
		} else {
			path.push(spanHash(sha256, from, middle, at));
			from = middle;
		}
	}
	return path.reverse();
}

/** Whether the path leads from the leaf to the root (RFC 9162 §2.1.3.2). */
export function proves(
	sha256: Sha256Bytes,
	proof: { leaf: number; size: number; path: string[] },
	leafHex: string,
	root: string
): boolean {
	if (proof.leaf >= proof.size) return false;
	let fn = proof.leaf;
	let sn = proof.size - 1;
	let hash = leafHex;
	for (const sibling of proof.path) {
		if (sn === 0) return false;
		if (fn % 2 === 1 || fn === sn) {
			hash = nodeHash(sha256, sibling, hash);
			while (fn % 2 === 0 && fn !== 0) {
				fn = Math.floor(fn / 2);
				sn = Math.floor(sn / 2);
			}
		} else {
			hash = nodeHash(sha256, hash, sibling);
		}
		fn = Math.floor(fn / 2);
		sn = Math.floor(sn / 2);
	}
	return sn === 0 && hash === root;
}

/**
 * The proof that the tree of the first `to` leaves begins with that of the first `from` (RFC 9162 §2.1.4.1): nothing of the earlier one was
 * changed, left out or put in between. 0 < from ≤ to.
 */
export function consistencyProof(sha256: Sha256Bytes, from: number, to: number, at: NodeAt): string[] {
	const part = (m: number, start: number, end: number, whole: boolean): string[] => {
		const n = end - start;
		if (m === n) return whole ? [] : [spanHash(sha256, start, end, at)];
		const k = split(n);
		return m <= k
			? [...part(m, start, start + k, whole), spanHash(sha256, start + k, end, at)]
			: [...part(m - k, start + k, end, false), spanHash(sha256, start, start + k, at)];
	};
	return part(from, 0, to, true);
}

/** Whether the proof shows that the later tree begins with the earlier one (RFC 9162 §2.1.4.2). */
export function isConsistent(
	sha256: Sha256Bytes,
	earlier: { size: number; root: string },
	later: { size: number; root: string },
	proof: readonly string[]
): boolean {
	if (earlier.size > later.size || earlier.size < 0) return false;
	if (earlier.size === 0) return proof.length === 0;
	if (earlier.size === later.size) return proof.length === 0 && earlier.root === later.root;
	const [begin, ...path] = isPower(earlier.size) ? [earlier.root, ...proof] : proof;
	if (begin === undefined) return false;
	let fn = earlier.size - 1;
	let sn = later.size - 1;
	while (fn % 2 === 1) [fn, sn] = [(fn - 1) / 2, Math.floor(sn / 2)];
	let [fr, sr] = [begin, begin];
	for (const one of path) {
		if (sn === 0) return false;
		if (fn % 2 === 1 || fn === sn) {
			fr = nodeHash(sha256, one, fr);
			sr = nodeHash(sha256, one, sr);
			while (fn % 2 === 0 && fn !== 0) [fn, sn] = [fn / 2, Math.floor(sn / 2)];
		} else sr = nodeHash(sha256, sr, one);
		[fn, sn] = [Math.floor(fn / 2), Math.floor(sn / 2)];
	}
	return sn === 0 && fr === earlier.root && sr === later.root;
}

const isPower = (n: number): boolean => Number.isInteger(Math.log2(n));

function spanHash(sha256: Sha256Bytes, from: number, to: number, at: NodeAt): string {
	const count = to - from;
	if ((count & (count - 1)) === 0) return at(Math.log2(count), from / count);
	const middle = from + split(count);
	return nodeHash(sha256, spanHash(sha256, from, middle, at), spanHash(sha256, middle, to, at));
}

/** The largest power of two below n (n > 1). */
function split(n: number): number {
	let power = 1;
	while (power * 2 < n) power *= 2;
	return power;
}

function joined(prefix: number, hex: string): Uint8Array {
	const bytes = new Uint8Array(1 + hex.length / 2);
	bytes[0] = prefix;
	for (let i = 1; i < bytes.length; i++)
		bytes[i] = (nibble(hex.charCodeAt(2 * i - 2)) << 4) | nibble(hex.charCodeAt(2 * i - 1));
	return bytes;
}

/** The value of a lower-case hexadecimal digit, from its character code; this is the hot path of appending. */
function nibble(code: number): number {
	return code < 58 ? code - 48 : code - 87;
}
