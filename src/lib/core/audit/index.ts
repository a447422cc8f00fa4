export { canonicalJson } from './canonical';
export { GENESIS, extend, firstBroken, linkHash, type Link, type Sha256 } from './chain';
export {
	grown,
	inclusionProof,
	leafHash,
	proves,
	rootOf,
	type NodeAt,
	type Sha256Bytes,
	type TreeNode
} from './merkle';
export { faultsOf, type AuditRecord } from './record';
