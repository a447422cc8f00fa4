import type { PDFDocumentProxy, PDFWorker } from 'pdfjs-dist';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';

type Pdfjs = typeof import('pdfjs-dist');
let library: Promise<{ pdfjs: Pdfjs; worker: PDFWorker }> | null = null;

/** pdf.js with one worker for all documents. Client only; fetched when first needed. */
function loadPdfjs(): Promise<{ pdfjs: Pdfjs; worker: PDFWorker }> {
	library ??= import('pdfjs-dist').then((pdfjs) => {
		pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;
		return { pdfjs, worker: new pdfjs.PDFWorker() };
	});
	library.catch(() => (library = null));
	return library;
}

async function openPdf(url: string): Promise<PDFDocumentProxy> {
	const { pdfjs, worker } = await loadPdfjs();
	return pdfjs.getDocument({
		url,
		worker,
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
