export { begin, changed, redone, type History, undone } from './history';
export { historyOf, keptOf, type KeptHistory } from './kept-history';
