export { askDue, lastingNow } from './due';
export { keepLasting, ofDisposal } from './keeping';
export { stampCopies } from './stamping';
