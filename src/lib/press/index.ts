/** The front of the press: what the rest of Pellum may use. Heavy work goes through the pool. */
export type { DisposalSheet } from './disposal';
export type { Evidence } from './evidence';
export { readSide } from './identity/read';
export type { PersonSheet } from './person';
export type { FirstSheet } from './paper/out';
export { tellSheet } from './paper/read';
export { faceBytes, unprintable } from './fonts';
export { glance, LIMITS, type Compared, type TakenIn } from './take-in';
export type { TakenInText } from './take-in/job';
export {
	closePool,
	changesSheetInWorker,
	compareInWorker,
	disposalSheetInWorker,
	drawnInWorker,
	fitInWorker,
	flatSheetInWorker,
	heldSheetInWorker,
	inkedPaperInWorker,
	journalSheetInWorker,
	paperOutInWorker,
	personSheetInWorker,
	openBundleInWorker,
	takeInInWorker,
	markPictureInWorker,
	pageCountInWorker,
	pageInWorker,
	picturesInWorker,
	readOwnInWorker,
	readingCopyInWorker,
	reorderInWorker,
	sealEvidenceInWorker,
	sealPaperInWorker,
	unseenInWorker,
	verifyInWorker,
	seeSideInWorker,
	stampAgainInWorker,
	stampedPaperInWorker,
	trySealInWorker,
	withPageInWorker,
	wordInWorker,
	type Following
} from './pool';
export { addColumnsInWorker, plainBookInWorker, readyBookInWorker, tableInWorker } from './sheet';
export { sweepMemory } from './memory';
export type { PagePlace } from './page-order';
export { languagesFor } from './ocr';
export { readScan, SCAN_SCALE, type ScanReading } from './scan';
export {
	certificatesOf,
	commonName,
	fingerprint,
	listsOf,
	makeIdentity,
	organisationIn,
	suiteOf,
	toPem,
	withdrawnBy,
	type Identity,
	type SealKeys,
	type WithdrawnWhy
} from './seal/keys';
export { firstDer } from './seal/cms';
export { firstEndOf, listAddresses, newest, nextUpdateOf } from './seal/lists';
export { listIn } from './seal/own';
export { suiteFor, type HashName } from './seal/suites';
export type { Sealed } from './jobs';
export { answerTimestamp } from './seal/timestamp';
export { reportPage, type Report } from './seal/report';
export { verifySealed, type Known } from './seal/verify';
export type { Mark, Stamp } from './stamp';
