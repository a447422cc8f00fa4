export { documentKey, type RowDocument } from './documents';
export { columnKeys, filterFault } from './filter';
export { broughtBy, judged, whoOf, type Facts, type Setting, type Verdict, type Went } from './judge';
export { headKey, matched, type Mapping, type Remembered, type Source } from './matching';
export { cellName, columnNames, sheetOf, type Sheet } from './sheet';
export { targetsOf, type Target } from './targets';
