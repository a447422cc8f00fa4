import type { PDFDocumentProxy } from 'pdfjs-dist';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';

/** Opens a PDF in pdf.js's own worker. Client only; the library is fetched when first needed. */
export async function openPdf(url: string): Promise<PDFDocumentProxy> {
	const pdfjs = await import('pdfjs-dist');
	pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;
	return pdfjs.getDocument({
		url,
		cMapUrl: '/pdfjs/cmaps/',
		standardFontDataUrl: '/pdfjs/standard_fonts/',
		wasmUrl: '/pdfjs/wasm/',
		isEvalSupported: false,
		disableRange: true
	}).promise;
}

const open = new Map<string, Promise<PDFDocumentProxy>>();

/** The document at that address, opened once however many pages and thumbnails of it are on screen. */
export function sharedPdf(url: string): Promise<PDFDocumentProxy> {
	let pdf = open.get(url);
	if (!pdf) {
		pdf = openPdf(url);
		pdf.catch(() => open.delete(url));
		open.set(url, pdf);
	}
	return pdf;
}

let calm: Promise<void> | null = null;

/** Resolves once, when the browser has shown what came first and has time for what can wait. */
export function quiet(): Promise<void> {
	calm ??= new Promise((done) => setTimeout(() => requestIdleCallback(() => done(), { timeout: 2000 }), 600));
	return calm;
}
