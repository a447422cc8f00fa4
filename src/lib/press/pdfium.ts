import { init, type WrappedPdfiumModule } from '@embedpdf/pdfium';
import type { PageDrawing, PrintedWord, ShownRect } from '../core/page';
import { packageBytes } from './assets';
import { pictureShare, readDrawing } from './drawn';
import { openLent, written } from './pdfium-files';
import { heap } from './pdfium-memory';
import { readWords } from './words';

/** PDFium's own error numbers (fpdfview.h). */
const ERROR = { format: 3, password: 4, security: 5 } as const;

const memory = (m: WrappedPdfiumModule): Uint8Array => heap(m).HEAPU8;

let ready: Promise<WrappedPdfiumModule> | null = null;

function pdfium(): Promise<WrappedPdfiumModule> {
	ready ??= init({ wasmBinary: new Uint8Array(packageBytes('@embedpdf/pdfium/pdfium.wasm')).buffer }).then((module) => {
		module.PDFiumExt_Init();
		return module;
	});
	return ready;
}

/** Whether an annotation is left out, by its flags (ISO 32000-2 §12.5.3). */
export type LeftOut = (flags: number, widget: boolean) => boolean;

/** An annotation by its page and its place in the page's list, both from 0. */
export interface AnnotationPlace {
	page: number;
	index: number;
}

/** One opened document. Everything it gives is a copy; it must be closed. */
export interface OpenPdf {
	pages: number;
	/** whether somebody has signed it: an empty place for a signature is none */
	signed: boolean;
	/** the file rewritten by PDFium, with cross references mended */
	saved(): Uint8Array;
	/**
	 * Makes the appearances that form fields and printing marks lack, and lets `picture` draw form fields as well; drops
	 * annotations of which `leftOut` says so, and then those of `hidden`, and tells how many of the first kind there were.
	 */
	showForms(leftOut: LeftOut, hidden?: AnnotationPlace[]): number;
	/** the pages alone in a new file, forms drawn onto them: for files whose object tree nobody else can read */
	pagesAlone(): Uint8Array;
	words(page: number): PrintedWord[];
	/** lines and boxes of the page, in user space before the crop box is taken off */
	drawing(page: number): PageDrawing;
	/** how much of the page its pictures cover, 0 to 1 */
	pictured(page: number): number;
	/** pixels of the page as shown, drawn `width` pixels wide on white */
	picture(page: number, width: number): Picture;
	/** parts of a page, points as shown, drawn with so many pixels a point */
	parts(page: number, places: ShownRect[], scale: number): Picture[];
	close(): void;
}

/** RGBA pixels, row by row. */
export interface Picture {
	width: number;
	height: number;
	rgba: Uint8Array;
}

/** Kinds of annotation, as PDFium numbers them (fpdf_annot.h). */
const ANNOTATION = { link: 2, popup: 16, widget: 20 } as const;

/** Opens what can be opened. Gives 'locked' for a file that wants a password, 'damaged' for one beyond repair. */
export async function openPdf(bytes: Uint8Array): Promise<OpenPdf | 'locked' | 'damaged'> {
	const m = await pdfium();
	const { doc, giveBack } = openLent(m, bytes);
	if (!doc) {
		const error = m.FPDF_GetLastError();
		giveBack();
		return error === ERROR.password || error === ERROR.security ? 'locked' : 'damaged';
	}
	let form: { info: number; handle: number } | null = null;
	/** Annotations that the page's dictionary lists, told without opening the page. */
	const annotated = (page: number) => m.EPDFPage_GetAnnotCountRaw(doc, page) > 0;
	const pages = m.FPDF_GetPageCount(doc);
	const numbers = {
		floats: (at: number, count: number) => [...heap(m).HEAPF32.slice(at >> 2, (at >> 2) + count)],
		ints: (at: number, count: number) => [...heap(m).HEAP32.slice(at >> 2, (at >> 2) + count)]
	};
	return {
		pages,
		signed: isSigned(m, doc),
		saved: () => written(m, doc),
		showForms(leftOut, hidden = []) {
			const wanted = Array.from({ length: pages }, (_, page) => page).filter(annotated);
			if (wanted.length === 0) return 0;
			let comments = 0;
			for (const page of wanted)
				withPage(m, doc, page, (handle) => {
					comments += dressed(m, handle, leftOut);
					for (const { index } of hidden.filter((one) => one.page === page).sort((a, b) => b.index - a.index))
						m.FPDFPage_RemoveAnnot(handle, index);
				});
			const info = m.PDFiumExt_OpenFormFillInfo();
			form = { info, handle: m.PDFiumExt_InitFormFillEnvironment(doc, info) };
			// a page that is looked at makes what its fields lack
			for (const page of wanted) withPage(m, doc, page, () => {}, form.handle);
			return comments;
		},
		pagesAlone() {
			for (let page = 0; page < pages; page++)
				withPage(m, doc, page, (handle) => annotated(page) && m.FPDFPage_Flatten(handle, 1));
			const alone = m.FPDF_CreateNewDocument();
			m.FPDF_ImportPages(alone, doc, '', 0);
			const copy = written(m, alone);
			m.FPDF_CloseDocument(alone);
			return copy;
		},
		words(page) {
			return withPage(m, doc, page, (handle) => readWords(m, handle));
		},
		drawing(page) {
			return withPage(m, doc, page, (handle) => readDrawing(m, handle, numbers));
		},
		pictured(page) {
			return withPage(m, doc, page, (handle) => {
				const area = m.FPDF_GetPageWidthF(handle) * m.FPDF_GetPageHeightF(handle);
				return pictureShare(m, handle, area, numbers);
			});
		},
		picture(page, width) {
			const shown = form && annotated(page) ? form.handle : 0;
			const draw = (handle: number) => {
				const [wide, high] = [m.FPDF_GetPageWidthF(handle), m.FPDF_GetPageHeightF(handle)];
				const height = Math.min(8 * width, Math.max(1, Math.round((width * high) / wide)));
				return painted(m, handle, shown, { left: 0, top: 0, width, height }, { width, height });
			};
			return withPage(m, doc, page, draw, shown);
		},
		parts(page, places, scale) {
			return withPage(m, doc, page, (handle) => {
				const px = (points: number) => Math.max(1, Math.round(points * scale));
				const whole = { width: px(m.FPDF_GetPageWidthF(handle)), height: px(m.FPDF_GetPageHeightF(handle)) };
				return places.map((place) =>
					painted(
						m,
						handle,
						0,
						{
							left: Math.floor(place.left * scale),
							top: Math.floor(place.top * scale),
							width: px(place.width) + 1,
							height: px(place.height) + 1
						},
						whole
					)
				);
			});
		},
		close() {
			if (form) {
				m.PDFiumExt_ExitFormFillEnvironment(form.handle);
				m.PDFiumExt_CloseFormFillInfo(form.info);
			}
			m.FPDF_CloseDocument(doc);
			giveBack();
		}
	};
}

/** Draws a part of a page that is `whole` pixels large, with the fields of its form where one is given. */
function painted(
	m: WrappedPdfiumModule,
	page: number,
	form: number,
	{ left, top, width, height }: ShownRect,
	whole: { width: number; height: number }
): Picture {
	const bitmap = m.FPDFBitmap_CreateEx(width, height, 4, 0, 0);
	m.FPDFBitmap_FillRect(bitmap, 0, 0, width, height, 0xffffffff);
	// 0x10: colours in the order red, green, blue; 0x01: with annotations
	m.FPDF_RenderPageBitmap(bitmap, page, -left, -top, whole.width, whole.height, 0, 0x11);
	if (form) m.FPDF_FFLDraw(form, bitmap, page, -left, -top, whole.width, whole.height, 0, 0x11);
	const buffer = m.FPDFBitmap_GetBuffer(bitmap);
	const rgba = memory(m).slice(buffer, buffer + width * height * 4);
	m.FPDFBitmap_Destroy(bitmap);
	return { width, height, rgba };
}

/** Opens a page, closes it afterwards; with `form` its fields are ready to be drawn meanwhile. */
function withPage<T>(m: WrappedPdfiumModule, doc: number, page: number, use: (handle: number) => T, form = 0): T {
	const handle = m.FPDF_LoadPage(doc, page);
	if (!handle) throw new Error(`page ${page + 1} can't be opened`);
	if (form) m.FORM_OnAfterLoadPage(handle, form);
	try {
		return use(handle);
	} finally {
		if (form) m.FORM_OnBeforeClosePage(handle, form);
		m.FPDF_ClosePage(handle);
	}
}

/**
 * Drops the annotations of a page that are left out, and makes the appearances that the others lack but for fields; how
 * many it has dropped, windows of others not counted.
 */
function dressed(m: WrappedPdfiumModule, page: number, leftOut: LeftOut): number {
	let dropped = 0;
	for (let i = m.FPDFPage_GetAnnotCount(page) - 1; i >= 0; i--) {
		const annotation = m.FPDFPage_GetAnnot(page, i);
		if (!annotation) continue;
		const kind = m.FPDFAnnot_GetSubtype(annotation);
		const drop = kind !== ANNOTATION.link && leftOut(m.FPDFAnnot_GetFlags(annotation), kind === ANNOTATION.widget);
		const mark = kind !== ANNOTATION.link && kind !== ANNOTATION.widget;
		if (!drop && mark && !m.EPDFAnnot_HasAppearanceStream(annotation, 0)) m.EPDFAnnot_GenerateAppearance(annotation);
		m.FPDFPage_CloseAnnot(annotation);
		if (drop && m.FPDFPage_RemoveAnnot(page, i) && kind !== ANNOTATION.popup) dropped += 1;
	}
	return dropped;
}

/** Whether a signature of the file holds anything: PDFium counts the empty places as well. */
function isSigned(m: WrappedPdfiumModule, doc: number): boolean {
	const count = m.FPDF_GetSignatureCount(doc);
	for (let i = 0; i < count; i++) {
		const signature = m.FPDF_GetSignatureObject(doc, i);
		if (signature && m.FPDFSignatureObj_GetContents(signature, 0, 0) > 0) return true;
	}
	return false;
}
