export { columnKeys, filterFault } from './filter';
export { judged, whoOf, type Facts, type Setting, type Verdict } from './judge';
export { sheetOf, type Sheet } from './sheet';
export { matched, targetsOf } from './targets';
