export { runBatch, sendRows, stopRun, type BatchJob } from './running';
export { batchRows } from './rows';
export { sheetBack } from './standing';
export { batches, newBatch, readBatch, replaceSheet, settle, verdictsOf } from './store';
