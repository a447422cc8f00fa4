import { existsSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createWorker, PSM, type Worker } from 'tesseract.js';
import { packageFile } from './assets';

/**
 * Reading the words of a picture, in a thread of Tesseract's own, with language data that ships in packages. Nothing is
 * ever fetched.
 */

/** A word as it was read: in pixels of the picture, from its top left; how sure of it, 0 to 100. */
export interface ReadWord {
	text: string;
	left: number;
	top: number;
	width: number;
	height: number;
	sure: number;
}

export interface ReadPicture {
	words: ReadWord[];
	/** how sure of the words, on the whole, 0 to 100 */
	sure: number;
	/** by how much the picture would have to be turned clockwise for its text to stand upright */
	turn: 0 | 90 | 180 | 270;
}

/** Languages we have data for, by their two letters. */
const DATA: Record<string, string> = {
	en: 'eng',
	de: 'deu',
	fr: 'fra',
	es: 'spa',
	it: 'ita',
	nl: 'nld',
	pt: 'por',
	pl: 'pol',
	cs: 'ces',
	da: 'dan',
	nb: 'nor',
	sv: 'swe',
	uk: 'ukr',
	ar: 'ara',
	zh: 'chi_sim'
};

/** Milliseconds after which a page is given up, and a reader that nobody uses is ended. */
const TIME = { page: 90_000, idle: 60_000 };

/** Pages are read by one reader, zones of documents by another: each has letters and a layout of its own to look for. */
type For = 'pages' | 'zones';
interface Reader {
	languages: string;
	worker: Promise<Worker>;
	idle?: NodeJS.Timeout;
}
const readers = new Map<For, Reader>();

/** Letters of a machine-readable zone (ICAO 9303-3 §4.3). */
const ZONE_LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789<';

/** The data for a language (`de-CH`) and English; English alone where there is none for it. */
export function languagesFor(locale: string | undefined): string {
	const own = DATA[(locale ?? 'en').split('-')[0]!];
	return own && own !== 'eng' ? `${own}+eng` : 'eng';
}

/**
 * Reads a picture (PNG). Throws where it takes too long; the next one gets a new reader.
 * @param what a page of words, or the few lines of a document's zone
 */
export async function readPicture(png: Uint8Array, languages: string, what: For = 'pages'): Promise<ReadPicture> {
	const worker = await readerFor(languages, what);
	let timer: NodeJS.Timeout | undefined;
	const late = new Promise<never>((_, refuse) => {
		timer = setTimeout(() => refuse(new Error('the page takes too long to read')), TIME.page);
	});
	try {
		const { data } = await Promise.race([worker.recognize(Buffer.from(png), {}, { text: false, blocks: true }), late]);
		const lines = (data.blocks ?? []).flatMap((block) => block.paragraphs.flatMap((paragraph) => paragraph.lines));
		const words = lines
			.flatMap((line) => line.words)
			.map(({ text, confidence, bbox }) => ({
				text,
				left: bbox.x0,
				top: bbox.y0,
				width: bbox.x1 - bbox.x0,
				height: bbox.y1 - bbox.y0,
				sure: Math.round(confidence)
			}));
		return {
			words,
			sure: Math.round(data.confidence),
			turn: turnOf(lines.map((line) => line.words.map((w) => w.bbox)))
		};
	} catch (error) {
		await endOne(what);
		throw error;
	} finally {
		clearTimeout(timer);
		const reader = readers.get(what);
		if (reader) {
			clearTimeout(reader.idle);
			reader.idle = setTimeout(() => void endOne(what), TIME.idle);
			reader.idle.unref();
		}
	}
}

interface Corners {
	x0: number;
	y0: number;
	x1: number;
	y1: number;
}

/** How a page lies, by the way from the first to the last word of its lines. */
function turnOf(lines: Corners[][]): ReadPicture['turn'] {
	const votes = { 0: 0, 90: 0, 180: 0, 270: 0 };
	for (const words of lines.filter((line) => line.length > 1)) {
		const [first, last] = [words[0]!, words[words.length - 1]!];
		const right = last.x0 + last.x1 - first.x0 - first.x1;
		const down = last.y0 + last.y1 - first.y0 - first.y1;
		if (Math.abs(right) >= Math.abs(down)) votes[right >= 0 ? 0 : 180] += words.length;
		else votes[down > 0 ? 270 : 90] += words.length;
	}
	// what is written from right to left goes the other way, and lies upright all the same
	votes[0] += votes[180];
	return votes[90] > votes[0] + votes[270] ? 90 : votes[270] > votes[0] + votes[90] ? 270 : 0;
}

/** Ends the readers, where there are any. */
export async function endReader(): Promise<void> {
	await Promise.all([...readers.keys()].map(endOne));
}

async function endOne(what: For): Promise<void> {
	const old = readers.get(what);
	readers.delete(what);
	clearTimeout(old?.idle);
	await (await old?.worker.catch(() => null))?.terminate();
}

async function readerFor(languages: string, what: For): Promise<Worker> {
	const there = readers.get(what);
	if (there?.languages === languages) return there.worker;
	if (there) await endOne(what);
	const reader = { languages, worker: begun(languages, what) };
	readers.set(what, reader);
	return reader.worker;
}

async function begun(languages: string, what: For): Promise<Worker> {
	const codes = languages.split('+');
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-languages-'));
	try {
		// each language ships in a package of its own, and the reader looks for all of them in one folder
		for (const code of codes) symlinkSync(dataFile(code), path.join(folder, `${code}.traineddata.gz`));
		const worker = await createWorker(
			codes,
			1,
			{
				langPath: folder,
				workerPath: packageFile('tesseract.js/src/worker-script/node/index.js'),
				corePath: path.dirname(packageFile('tesseract.js-core/package.json')),
				cacheMethod: 'none',
				gzip: true
			},
			// a zone holds no words of any language
			what === 'zones' ? { load_system_dawg: '0', load_freq_dawg: '0', load_punc_dawg: '0', load_number_dawg: '0' } : {}
		);
		// rules and boxes stand among the words of a form: look for text wherever it is
		await worker.setParameters(
			what === 'pages'
				? { tessedit_pageseg_mode: PSM.AUTO, preserve_interword_spaces: '0' }
				: { tessedit_pageseg_mode: PSM.SINGLE_BLOCK, tessedit_char_whitelist: ZONE_LETTERS }
		);
		return worker;
	} finally {
		rmSync(folder, { recursive: true, force: true });
	}
}

/** The small, whole-number model of a language. */
function dataFile(code: string): string {
	const folder = path.dirname(packageFile(`@tesseract.js-data/${code}/package.json`));
	const file = path.join(folder, '4.0.0_best_int', `${code}.traineddata.gz`);
	if (!existsSync(file)) throw new Error(`there is no language data at ${file}`);
	return file;
}
