import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { canonicalJson } from '../core/audit';
import { refuse, type Refusal } from '../core/refusal';
import { disposalSheet, type DisposalSheet } from './disposal';
import { evidenceSheet, type Evidence } from './evidence';
import { FontSet } from './fonts';
import type { PageDrawing } from '../core/page';
import { readDrawn } from './take-in';
import { sha256 } from './seal/cms';
import { stampedAgain, type AgainWish } from './seal/again';
import { toPem, type SealKeys } from './seal/keys';
import { DISPOSAL_FORMAT, DISPOSAL_NAME, seal, type SealWish } from './seal/seal';
import { verifySealed, type Known, type Verdict } from './seal/verify';
import { stampAll, type Stamp } from './stamp';

/** What the press can be asked to do. Plain data in and out, since it crosses into a worker. */
export interface PaperJob {
	paper: Uint8Array;
	stamps: Stamp[];
	/** files that go into the sealed copy unchanged */
	files: { name: string; media: string; bytes: Uint8Array }[];
	keys: SealKeys;
	organisation: string;
	reason: string;
	record: string;
	/** ISO 8601 */
	now: string;
	/** whoever notarised it, who signs before the seal */
	notary?: SealWish['notary'];
}

export interface EvidenceJob extends Omit<PaperJob, 'paper' | 'stamps' | 'files' | 'notary'> {
	evidence: Evidence;
}

export interface Sealed {
	bytes: Uint8Array;
	digest: string;
}

/** Lines and boxes of a document that is here already; see {@link readDrawn}. */
export function drawn(job: { bytes: Uint8Array }): Promise<PageDrawing[]> {
	return readDrawn(job);
}

/** Stamps the answers on a paper and seals it. */
export async function sealPaper(job: PaperJob): Promise<Sealed> {
	const doc = await PDFDocument.load(job.paper, { updateMetadata: false, parseSpeed: Infinity });
	await stampAll(doc, new FontSet(doc), job.stamps);
	const when = new Date(job.now);
	for (const [i, file] of job.files.entries())
		await doc.attach(file.bytes, `${i + 1} ${file.name}`, {
			mimeType: file.media,
			creationDate: when,
			modificationDate: when
		});
	return sealed(doc, job);
}

/** Makes the evidence sheet and seals it. */
export async function sealEvidence(job: EvidenceJob): Promise<Sealed> {
	return sealed(await evidenceSheet(job.evidence), job);
}

export interface DisposalJob extends Omit<EvidenceJob, 'evidence' | 'record'> {
	sheet: DisposalSheet;
}

/** Makes a certificate of disposal and seals it. */
export async function sealDisposal(job: DisposalJob): Promise<Sealed> {
	const doc = await disposalSheet(job.sheet);
	await listed(doc, job.sheet, new Date(job.now));
	return sealed(doc, { ...job, record: null });
}

async function listed(doc: PDFDocument, what: object, when: Date): Promise<void> {
	await doc.attach(Buffer.from(canonicalJson({ format: DISPOSAL_FORMAT, ...what })), DISPOSAL_NAME, {
		mimeType: 'application/json',
		description: 'What went',
		creationDate: when,
		modificationDate: when
	});
}

/** Seals an empty sheet with keys that are to be used, and judges it by their own roots. */
export async function trySeal(job: { keys: SealKeys; now: string }): Promise<Verdict> {
	const doc = await PDFDocument.create();
	doc.addPage();
	const now = new Date(job.now);
	await listed(doc, { number: 'trial', lines: [] }, now);
	const bytes = await seal(doc, job.keys, { organisation: 'trial', reason: 'trial', record: null, now });
	const roots = [job.keys.seal, job.keys.stamp].map(({ issuer }) => toPem(issuer));
	return verifySealed(bytes, roots, { at: now });
}

export interface AgainJob extends Omit<AgainWish, 'now'> {
	now: string;
	/** roots by which it has to be genuine, PEM */
	trusted: string[];
	ended: Known['ended'];
}

/** Another time-stamp over a sealed copy, which has to be genuine before and after. Throws where it is not. */
export async function stampAgain(job: AgainJob): Promise<Sealed> {
	const now = new Date(job.now);
	const bytes = await stampedAgain({ ...job, now });
	const verdict = await verifySealed(bytes, job.trusted, { at: now, lists: job.lists, ended: job.ended });
	const wrong = verdict.checks.find(({ ok }) => !ok);
	if (wrong) throw new Error(`a copy with another time-stamp is not genuine: ${wrong.say}`);
	return { bytes, digest: sha256(bytes).toString('hex') };
}

async function sealed(
	doc: PDFDocument,
	job: Omit<PaperJob, 'paper' | 'stamps' | 'files' | 'record'> & { record: string | null }
): Promise<Sealed> {
	const bytes = await seal(doc, job.keys, { ...job, now: new Date(job.now) });
	return { bytes, digest: sha256(bytes).toString('hex') };
}

/**
 * A picture as somebody sends it, made into a PNG that can be stamped: at most 1200 x 600, white made clear.
 * Refuses `not-a-picture`; judged by its content, whatever it is called.
 */
export async function markPicture(job: { bytes: Uint8Array }): Promise<Sealed | Refusal> {
	try {
		const image = sharp(job.bytes, { limitInputPixels: 40_000_000 }).rotate();
		const { data, info } = await image
			.resize(1200, 600, { fit: 'inside', withoutEnlargement: true })
			.ensureAlpha()
			.raw()
			.toBuffer({ resolveWithObject: true });
		for (let i = 0; i < data.length; i += 4) {
			const light = Math.min(data[i]!, data[i + 1]!, data[i + 2]!);
			// paper becomes clear, with a soft edge between 200 and 240 so that ink doesn't fray
			if (light > 200) data[i + 3] = Math.min(data[i + 3]!, Math.max(0, Math.round(((240 - light) / 40) * 255)));
		}
		const png = new Uint8Array(await sharp(data, { raw: info }).png().toBuffer());
		return { bytes: png, digest: sha256(png).toString('hex') };
	} catch {
		return refuse('not-a-picture', 'This is not a picture that can be read. Use a PNG or JPEG.');
	}
}
