export type { Amends } from './asked';
export { chainOf, type Link } from './chain';
export { differences, type Difference } from './compare';
export { saidBy, unsigned, withoutChange, withStruck, withSummary, type Struck } from './edit';
export { findAcross } from './find';
export { signaturesAt } from './place';
export { amendmentFaults, amendmentInWords } from './words';
