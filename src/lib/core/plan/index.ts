/** Edits of a plan, as values: what the Bench does with people, papers, pages and fields, without any screen. */
export { type Block, blockOf, copyFields, copyFor, pasteBlock, peopleHere, readBlock, repeatOn } from './copying';
export {
	type Change,
	type SetPerson,
	addMyself,
	addPapers,
	addPerson,
	askAlike,
	attach,
	changePerson,
	changeSending,
	changeStop,
	detach,
	freshId,
	movePaperTo,
	removePaper,
	removePerson,
	withRoles,
	withSubject
} from './edits';
export {
	alignFields,
	answerField,
	changeFields,
	changeQuestion,
	distributeFields,
	giveTo,
	placeField,
	putAt,
	removeFields,
	setKey,
	shiftFields,
	shiftToPage,
	shownAt,
	sizeAlike,
	withGroups
} from './field-edits';
export { type Laid, doubtsSaid, exchanged, laidOut, withTemplate } from './fitting';
export {
	BESIDE,
	type Beside,
	type FreePlace,
	likelyOwner,
	namedElsewhere,
	placeAtHits,
	stillFree,
	takePlaces
} from './found-places';
export { type History, begin, changed, redone, undone } from './history';
export { type KeptHistory, historyOf, keptOf } from './kept-history';
export { isMarkerKnown, markerFields } from './marked';
export { type PagePlace, movedPage, pagesAsTheyAre, reordered, straightened, turned } from './pages';
