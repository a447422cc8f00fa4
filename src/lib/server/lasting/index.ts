export { askDue, lastingNow } from './due';
export { keepLasting } from './keeping';
export { stampCopies } from './stamping';
