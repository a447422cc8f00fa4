export { canonicalJson, sameJson } from './canonical';
export { extend, firstBroken, GENESIS } from './chain';
export {
	consistencyProof,
	grown,
	inclusionProof,
	isConsistent,
	leafHash,
	rootOf,
	type NodeAt,
	type TreeNode
} from './merkle';
export { backwards, faultsOf, plansOf, type AuditRecord } from './record';
