import type { WrappedPdfiumModule } from '@embedpdf/pdfium';

/** PDFium's own functions without the wrapping that turns text and bytes; for those that are called once a letter. */
export type Raw = Record<
	| 'malloc'
	| 'free'
	| 'FPDFText_LoadPage'
	| 'FPDFText_ClosePage'
	| 'FPDFText_CountChars'
	| 'FPDFText_GetUnicode'
	| 'FPDFText_GetCharBox'
	| 'FPDFText_GetMatrix'
	| 'FPDFText_IsGenerated'
	| 'FPDFText_GetFillColor',
	(...numbers: number[]) => number
>;

/** Views of the module's memory, which the package's types leave out. They move when memory grows: never keep them. */
export function heap(m: WrappedPdfiumModule): {
	HEAPU8: Uint8Array;
	HEAP32: Int32Array;
	HEAPF32: Float32Array;
	HEAPF64: Float64Array;
} {
	return m.pdfium as never;
}
