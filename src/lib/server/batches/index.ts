export { runBatch, sendRows, stopRun, type BatchJob } from './running';
export { saidOfRow, sheetBack, statusesOf } from './standing';
export { batches, newBatch, readBatch, replaceSheet, settle, verdictsOf } from './store';
