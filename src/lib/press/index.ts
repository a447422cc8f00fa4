/** The front of the press: what the rest of Pellum may use. Heavy work goes through the pool. */
export type { Evidence } from './evidence';
export { faceBytes, unprintable } from './fonts';
export { glance, LIMITS, type TakenIn } from './take-in';
export {
	closePool,
	drawnInWorker,
	takeInInWorker,
	markPictureInWorker,
	picturesInWorker,
	reorderInWorker,
	sealEvidenceInWorker,
	sealPaperInWorker,
	wordInWorker
} from './pool';
export type { PagePlace } from './page-order';
export { makeIdentity, toPem, type Identity, type SealKeys } from './seal/keys';
export { answerTimestamp } from './seal/timestamp';
export { verifySealed } from './seal/verify';
export type { Mark, Stamp } from './stamp';
