import { execFileSync, spawnSync } from 'node:child_process';
import { generateKeyPairSync, sign } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { pdf } from '../e2e/kit/pdfs';
import type { PageSize } from '../src/lib/core/page';
import { isRefusal } from '../src/lib/core/refusal';
import {
	closePool,
	compareInWorker,
	takeInInWorker,
	makeIdentity,
	sealPaperInWorker,
	unseenInWorker,
	type SealKeys,
	type TakenInText,
	type Stamp
} from '../src/lib/press';
import { endReader } from '../src/lib/press/ocr';
import { openPdf } from '../src/lib/press/pdfium';
import { readScan, SCAN_SCALE } from '../src/lib/press/scan';
import type { LongTaking } from './long';
import { figure, median, percentile, type Figure } from './measure';

const RECORD = JSON.stringify({
	format: 'pellum-audit-record/1',
	links: Array.from({ length: 20 }, () => 'x'.repeat(300))
});

/** Taking in and sealing, in the workers as the server does it; bounds are Debian's own programs on the same files. */
export async function benchPress(): Promise<Figure[]> {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-bench-'));
	const now = new Date();
	const keys: SealKeys = {
		seal: await makeIdentity('Bench', 'seal', now),
		stamp: await makeIdentity('Bench', 'stamp', now)
	};
	const { privateKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
	const figures: Figure[] = [];
	let blocked = 0;
	try {
		for (const pages of [10, 300]) {
			const original = await letterLike(pages);
			const file = path.join(folder, `${pages}.pdf`);
			writeFileSync(file, original);
			const taken = await takeInInWorker(original);
			if (isRefusal(taken)) throw new Error(taken.say);
			writeFileSync(file, taken.bytes);
			const stamps = Array.from({ length: pages }, (_, page): Stamp => ({
				page,
				rect: { x: 60, y: 60, width: 160, height: 30 },
				mark: { draw: 'hand', text: 'Maren Lindqvist', hand: 'caveat' }
			}));
			const job = {
				paper: taken.bytes,
				stamps,
				files: [],
				keys,
				organisation: 'Bench',
				reason: 'Bench',
				record: RECORD,
				now: now.toISOString()
			};
			const watch = watchLoop();
			const sealing = await median(25, () => sealPaperInWorker(job));
			const taking = pages === 300 ? await median(3, () => takeInInWorker(original)) : 0;
			blocked = Math.max(blocked, watch());
			const bound = await median(9, () => {
				execFileSync('qpdf', [file, path.join(folder, 'out.pdf')]);
				sign('sha256', Buffer.alloc(32), privateKey);
			});
			figures.push(
				figure(
					`seal ${pages} pages, a signature on each`,
					sealing,
					'ms',
					{ what: 'qpdf rewrite and one P-256 signature', value: bound },
					{ ratio: 3 }
				)
			);
			if (pages === 300) {
				figures.push(...(await benchTakeIn(original, taken, job.stamps, folder)));
				const words = await median(3, () =>
					execFileSync('pdftotext', ['-bbox', file, path.join(folder, 'words.html')])
				);
				figures.push(
					figure('take in 300 pages', taking, 'ms', { what: 'pdftotext -bbox', value: words }, { ratio: 3 })
				);
			}
		}
		figures.push(
			figure(
				'how late the process itself came while its workers pressed, 99.9th percentile',
				blocked,
				'ms',
				{ what: 'the goal itself', value: 20 },
				{ value: 20 }
			)
		);
	} finally {
		await closePool();
		rmSync(folder, { recursive: true, force: true });
	}
	return figures;
}

/** What is done with a document's pages besides reading them: comparing, looking for stamps; and a very long one. */
async function benchTakeIn(
	original: Uint8Array,
	taken: TakenInText,
	stamps: Stamp[],
	folder: string
): Promise<Figure[]> {
	const file = path.join(folder, '300.pdf');
	const compare = await median(3, () =>
		compareInWorker({
			original,
			taken: taken.bytes,
			widths: taken.pages.map((page) => page.width),
			hidden: taken.hidden
		})
	);
	const drawing = await median(3, () =>
		execFileSync('pdftoppm', ['-r', '43', file, path.join(folder, 'page')], { stdio: 'ignore' })
	);
	const looking = await median(3, () => unseenInWorker({ paper: taken.bytes, sealed: taken.bytes, stamps }));
	// made and taken in by processes of their own, so that what is held here already is not counted
	await closePool();
	const thousand = path.join(folder, '1000.pdf');
	const alone = (script: string, ...given: string[]) =>
		execFileSync(process.execPath, [...process.execArgv, `bench/${script}.ts`, ...given], { encoding: 'utf8' });
	alone('dense', thousand, '1000');
	const { taking, comparing, peak } = JSON.parse(alone('long', thousand)) as LongTaking;
	return [
		figure('compare 300 pages with their file', compare, 'ms', {
			what: 'pdftoppm of the same pages once, as large',
			value: drawing
		}),
		figure('look for 300 stamps on their pages', looking, 'ms', {
			what: 'pdftoppm of the same pages once',
			value: drawing
		}),
		figure('take in 1,000 dense pages', taking, 'ms', { what: 'the goal itself', value: 15_000 }, { value: 15_000 }),
		figure('compare them with their file', comparing, 'ms', { what: 'taking them in', value: taking }),
		figure(
			'held by the whole process at the peak of both',
			peak / 1e6,
			'MB',
			{ what: 'the goal itself', value: 1000 },
			{ value: 1000 }
		)
	];
}

/** A scanned page read by our reader, beside the same by the machine's own where it has one. */
export async function benchScan(): Promise<Figure[]> {
	const { png, page } = await scannedLetter();
	const ours = await median(3, () => readScan(png, page, 'eng'));
	await endReader();
	const native = spawnSync('which', ['tesseract']).status === 0;
	if (!native)
		return [figure('read a scanned page', ours, 'ms', { what: 'no tesseract on this machine', value: ours })];
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-bench-'));
	const file = path.join(folder, 'page.png');
	writeFileSync(file, png);
	const theirs = await median(3, () => execFileSync('tesseract', [file, '-', '-l', 'eng'], { stdio: 'ignore' }));
	rmSync(folder, { recursive: true, force: true });
	return [figure('read a scanned page of 45 lines', ours, 'ms', { what: 'tesseract of the same page', value: theirs })];
}

async function scannedLetter(): Promise<{ png: Uint8Array; page: PageSize }> {
	const pdf = await openPdf(await letterLike(2));
	if (typeof pdf === 'string') throw new Error(pdf);
	const { width, height, rgba } = pdf.picture(1, Math.round(595 * SCAN_SCALE));
	pdf.close();
	const png = await sharp(rgba, { raw: { width, height, channels: 4 } })
		.flatten({ background: '#ffffff' })
		.greyscale()
		.png()
		.toBuffer();
	return { png: new Uint8Array(png), page: { width: 595, height: 842, rotate: 0 } };
}

/** Pages full of text, so that there is something to read and rewrite. */
export async function letterLike(pages: number): Promise<Uint8Array> {
	const { PDFDocument, StandardFonts } = await import('@cantoo/pdf-lib');
	const doc = await PDFDocument.load(await pdf(1));
	const font = await doc.embedFont(StandardFonts.TimesRoman);
	for (let p = 1; p < pages; p++) {
		const page = doc.addPage([595, 842]);
		for (let line = 0; line < 45; line++)
			page.drawText(
				`${p}.${line} The Orchestra insures the instrument named in the schedule while it travels with the company.`,
				{ x: 60, y: 780 - line * 15, size: 10, font }
			);
	}
	return doc.save({ useObjectStreams: false });
}

/** Watches how late the main thread's timers come; gives the 99.9th percentile of it in ms. */
function watchLoop(): () => number {
	const late: number[] = [];
	let last = performance.now();
	const timer = setInterval(() => {
		const now = performance.now();
		late.push(Math.max(0, now - last - 2));
		last = now;
	}, 2);
	return () => {
		clearInterval(timer);
		return percentile(late, 99.9);
	};
}
