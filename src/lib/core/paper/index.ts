export { codeText, readCode, type PageCode } from './code';
export { comparePage, type PageCompared } from './compared';
export { laidColour, laidGrey, LAID_SCALE } from './laid';
export { matchWords, type Known, type Matched } from './matching';
export type { Place, ReadWordAt, SheetOut, SheetWord } from './sheet';
export {
	judgeReturn,
	toldByCode,
	type Doubt,
	type DoubtName,
	type Foreign,
	type Judged,
	type SheetSeen
} from './judge';
export type { BroughtPicture, PaperToBring, ReturnLook } from './views';
