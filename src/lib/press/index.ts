/** The front of the press: what the rest of Pellum may use. Heavy work goes through the pool. */
export type { Evidence } from './evidence';
export { readSide } from './identity/read';
export type { FirstSheet } from './paper/out';
export { tellSheet } from './paper/read';
export { faceBytes, unprintable } from './fonts';
export { glance, LIMITS, type Compared, type TakenIn } from './take-in';
export type { TakenInText } from './take-in/job';
export {
	closePool,
	compareInWorker,
	drawnInWorker,
	fitInWorker,
	flatSheetInWorker,
	heldSheetInWorker,
	inkedPaperInWorker,
	journalSheetInWorker,
	paperOutInWorker,
	openBundleInWorker,
	takeInInWorker,
	markPictureInWorker,
	pageCountInWorker,
	pageInWorker,
	picturesInWorker,
	reorderInWorker,
	sealEvidenceInWorker,
	sealPaperInWorker,
	unseenInWorker,
	seeSideInWorker,
	withPageInWorker,
	wordInWorker,
	type Following
} from './pool';
export { addColumnsInWorker, plainBookInWorker, readyBookInWorker, tableInWorker } from './sheet';
export { sweepMemory } from './memory';
export type { PagePlace } from './page-order';
export { languagesFor } from './ocr';
export { readScan, SCAN_SCALE, type ScanReading } from './scan';
export { makeIdentity, organisationIn, toPem, type Identity, type SealKeys } from './seal/keys';
export { answerTimestamp } from './seal/timestamp';
export { verifySealed } from './seal/verify';
export type { Mark, Stamp } from './stamp';
