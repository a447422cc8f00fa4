import { execFileSync } from 'node:child_process';
import { generateKeyPairSync, sign } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pdf } from '../e2e/kit/pdfs';
import { isRefusal } from '../src/lib/core/refusal';
import {
	closePool,
	takeInInWorker,
	makeIdentity,
	sealPaperInWorker,
	type SealKeys,
	type Stamp
} from '../src/lib/press';
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
				const words = await median(3, () =>
					execFileSync('pdftotext', ['-bbox', file, path.join(folder, 'words.html')])
				);
				figures.push(figure('take in 300 pages', taking, 'ms', { what: 'pdftotext -bbox', value: words }));
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
