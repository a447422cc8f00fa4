import type { WrappedPdfiumModule } from '@embedpdf/pdfium';
import { heap } from './pdfium-memory';

/**
 * Files that PDFium reads and writes through functions of ours, piece by piece: a copy of each within its own memory would
 * stay there, as that memory only ever grows.
 */

type Functions = { addFunction(run: (...numbers: number[]) => number, signature: string): number };
type Exports = Record<string, (...numbers: number[]) => number>;
const wasm = (m: WrappedPdfiumModule): Exports => m.pdfium.wasmExports as unknown as Exports;

/** What is lent at the moment, by the number that PDFium hands back with each question. */
const lent = new Map<number, Uint8Array>();
let next = 1;
/** One function for all files of a module: the table of functions grows, and never shrinks. */
const reading = new WeakMap<WrappedPdfiumModule, number>();

function reader(m: WrappedPdfiumModule): number {
	let at = reading.get(m);
	if (at === undefined) {
		at = (m.pdfium as unknown as Functions).addFunction((id, from, to, size) => {
			const bytes = lent.get(id!);
			if (!bytes || from! + size! > bytes.length) return 0;
			heap(m).HEAPU8.set(bytes.subarray(from!, from! + size!), to!);
			return 1;
		}, 'iiiii');
		reading.set(m, at);
	}
	return at;
}

/** Opens a file (`FPDF_FILEACCESS`, fpdfview.h). @returns the document, 0 where it can't be opened, and what ends the loan */
export function openLent(m: WrappedPdfiumModule, bytes: Uint8Array): { doc: number; giveBack: () => void } {
	const id = next++;
	lent.set(id, bytes);
	const { malloc, free } = m.pdfium.wasmExports;
	const access = malloc(12);
	heap(m).HEAP32.set([bytes.length, reader(m), id], access >> 2);
	const doc = wasm(m)['FPDF_LoadCustomDocument']!(access, 0);
	return {
		doc,
		giveBack: () => {
			lent.delete(id);
			free(access);
		}
	};
}

/** Grows in place, so that a file is never held twice: as its pieces and as a whole. */
type Growing = ArrayBuffer & { resize(size: number): void };
/** No file that was taken in becomes larger than this by being rewritten. */
const LARGEST = 512 * 1024 * 1024;
let growing: { buffer: Growing; size: number } | null = null;

function append(piece: Uint8Array): number {
	const to = growing!;
	const end = to.size + piece.length;
	if (end > LARGEST) return 0;
	if (end > to.buffer.byteLength) to.buffer.resize(Math.min(LARGEST, Math.max(end, to.buffer.byteLength + 4_000_000)));
	new Uint8Array(to.buffer).set(piece, to.size);
	to.size = end;
	return 1;
}

const writing = new WeakMap<WrappedPdfiumModule, number>();

/** A document as a file (`FPDF_FILEWRITE`, fpdf_save.h). */
export function written(m: WrappedPdfiumModule, doc: number): Uint8Array {
	let write = writing.get(m);
	if (write === undefined) {
		write = (m.pdfium as unknown as Functions).addFunction((_self, from, size) => {
			return append(heap(m).HEAPU8.subarray(from!, from! + size!));
		}, 'iiii');
		writing.set(m, write);
	}
	const { malloc, free } = m.pdfium.wasmExports;
	const writer = malloc(8);
	heap(m).HEAP32.set([1, write], writer >> 2);
	growing = { buffer: new ArrayBuffer(0, { maxByteLength: LARGEST } as never) as Growing, size: 0 };
	wasm(m)['FPDF_SaveAsCopy']!(doc, writer, 0);
	free(writer);
	const { buffer, size } = growing;
	growing = null;
	return new Uint8Array(buffer, 0, size);
}
