export { actorsOf, actorsAt, acts, doneWord, dutyVerb, moved, nextStop, stopOf } from './route';
