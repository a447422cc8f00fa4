export { beginAmendment } from './begin';
export { chainOfPacket } from './chain';
export { comparePapers } from './comparing';
export { noteAmendment } from './noting';
export { whatHolds } from './reading';
export { summaryPaper } from './summary';
