import { init, type WrappedPdfiumModule } from '@embedpdf/pdfium';
import type { PageDrawing, PrintedWord } from '../core/page';
import { packageBytes } from './assets';
import { readDrawing } from './drawn';

/** PDFium's own error numbers (fpdfview.h). */
const ERROR = { format: 3, password: 4, security: 5 } as const;

/** Emscripten's view of the module's memory, which the package's types leave out. It moves when memory grows: never keep it. */
function memory(m: WrappedPdfiumModule): Uint8Array {
	return (m.pdfium as unknown as { HEAPU8: Uint8Array }).HEAPU8;
}

let ready: Promise<WrappedPdfiumModule> | null = null;

function pdfium(): Promise<WrappedPdfiumModule> {
	ready ??= init({ wasmBinary: new Uint8Array(packageBytes('@embedpdf/pdfium/pdfium.wasm')).buffer }).then((module) => {
		module.PDFiumExt_Init();
		return module;
	});
	return ready;
}

/** One opened document. Everything it gives is a copy; it must be closed. */
export interface OpenPdf {
	pages: number;
	signatures: number;
	/** the file rewritten by PDFium, with cross references mended */
	saved(): Uint8Array;
	words(page: number): PrintedWord[];
	/** lines and boxes of the page, in user space before the crop box is taken off */
	drawing(page: number): PageDrawing;
	/** RGBA pixels of the page as shown, drawn `width` pixels wide on white */
	picture(page: number, width: number): { width: number; height: number; rgba: Uint8Array };
	close(): void;
}

/** Opens what can be opened. Gives 'locked' for a file that wants a password, 'damaged' for one beyond repair. */
export async function openPdf(bytes: Uint8Array): Promise<OpenPdf | 'locked' | 'damaged'> {
	const m = await pdfium();
	const { malloc, free } = m.pdfium.wasmExports;
	const at = malloc(bytes.length);
	memory(m).set(bytes, at);
	const doc = m.FPDF_LoadMemDocument(at, bytes.length, '');
	if (!doc) {
		const error = m.FPDF_GetLastError();
		free(at);
		return error === ERROR.password || error === ERROR.security ? 'locked' : 'damaged';
	}
	return {
		pages: m.FPDF_GetPageCount(doc),
		signatures: Math.max(0, m.FPDF_GetSignatureCount(doc)),
		saved() {
			const writer = m.PDFiumExt_OpenFileWriter();
			m.PDFiumExt_SaveAsCopy(doc, writer);
			const size = m.PDFiumExt_GetFileWriterSize(writer);
			const out = malloc(size);
			m.PDFiumExt_GetFileWriterData(writer, out, size);
			const copy = memory(m).slice(out, out + size);
			free(out);
			m.PDFiumExt_CloseFileWriter(writer);
			return copy;
		},
		words(page) {
			return withPage(m, doc, page, (handle) => readWords(m, handle));
		},
		drawing(page) {
			return withPage(m, doc, page, (handle) =>
				readDrawing(m, handle, {
					floats: (at, count) => [...new Float32Array(memory(m).slice(at, at + 4 * count).buffer)],
					ints: (at, count) => [...new Int32Array(memory(m).slice(at, at + 4 * count).buffer)]
				})
			);
		},
		picture(page, width) {
			return withPage(m, doc, page, (handle) => {
				const height = Math.max(1, Math.round((width * m.FPDF_GetPageHeightF(handle)) / m.FPDF_GetPageWidthF(handle)));
				const bitmap = m.FPDFBitmap_CreateEx(width, height, 4, 0, 0);
				m.FPDFBitmap_FillRect(bitmap, 0, 0, width, height, 0xffffffff);
				// 0x10: colours in the order red, green, blue; 0x01: with annotations
				m.FPDF_RenderPageBitmap(bitmap, handle, 0, 0, width, height, 0, 0x11);
				const buffer = m.FPDFBitmap_GetBuffer(bitmap);
				const rgba = memory(m).slice(buffer, buffer + width * height * 4);
				m.FPDFBitmap_Destroy(bitmap);
				return { width, height, rgba };
			});
		},
		close() {
			m.FPDF_CloseDocument(doc);
			free(at);
		}
	};
}

function withPage<T>(m: WrappedPdfiumModule, doc: number, page: number, use: (handle: number) => T): T {
	const handle = m.FPDF_LoadPage(doc, page);
	if (!handle) throw new Error(`page ${page + 1} can't be opened`);
	try {
		return use(handle);
	} finally {
		m.FPDF_ClosePage(handle);
	}
}

/** Words of a page and where they stand, in user space before the crop box is taken off. */
function readWords(m: WrappedPdfiumModule, page: number): PrintedWord[] {
	const text = m.FPDFText_LoadPage(page);
	if (!text) return [];
	const box = m.pdfium.wasmExports.malloc(32);
	const words: PrintedWord[] = [];
	let word: { text: string; left: number; right: number; bottom: number; top: number } | null = null;
	const close = () => {
		if (word)
			words.push({
				text: word.text,
				x: round(word.left),
				y: round(word.bottom),
				width: round(word.right - word.left),
				height: round(word.top - word.bottom)
			});
		word = null;
	};
	const count = m.FPDFText_CountChars(text);
	for (let i = 0; i < count; i++) {
		const letter = String.fromCodePoint(m.FPDFText_GetUnicode(text, i) || 0x20);
		if (/\s/u.test(letter)) {
			close();
			continue;
		}
		m.FPDFText_GetCharBox(text, i, box, box + 8, box + 16, box + 24);
		const [left, right, bottom, top] = new Float64Array(memory(m).slice(box, box + 32).buffer) as unknown as [
			number,
			number,
			number,
			number
		];
		// PDFium leaves out spaces that are only a gap; a jump back or to another line begins a new word
		if (
			word &&
			(left < word.left - 1 ||
				left - word.right > 0.3 * (Math.max(word.top - word.bottom, top - bottom) + 4) ||
				bottom > word.top ||
				top < word.bottom)
		)
			close();
		word = word
			? {
					text: word.text + letter,
					left: word.left,
					right: Math.max(word.right, right),
					bottom: Math.min(word.bottom, bottom),
					top: Math.max(word.top, top)
				}
			: { text: letter, left, right, bottom, top };
	}
	close();
	m.pdfium.wasmExports.free(box);
	m.FPDFText_ClosePage(text);
	return words;
}

function round(points: number): number {
	return Math.round(points * 100) / 100;
}
