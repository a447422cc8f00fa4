export { runBatch, saidOfRow, sendRows, sheetBack, statusesOf, type BatchJob } from './running';
export { batches, newBatch, readBatch, replaceSheet, settle, verdictsOf } from './store';
