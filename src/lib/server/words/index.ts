export { findEnded, type Found } from './finding';
export { indexWords } from './indexing';
