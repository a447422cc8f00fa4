/** The worker's entry: each export is a task by its name. Built into `dist/press/worker.js`. */
export { drawn, takeInJob, markPicture, sealEvidence, sealPaper } from './jobs';
export { reorderPages } from './page-order';
export { picturesToPdf } from './pictures';
export { wordToPdf } from './word';
