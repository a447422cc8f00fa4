import { PDFArray, PDFDict, PDFRef, PDFStream, type PDFDocument, type PDFObject } from '@cantoo/pdf-lib';

/**
 * Drops every object that nothing leads to from the file's trailer, as qpdf does when it rewrites: the second way for
 * files that its build for WebAssembly can't take, which has little stack and gives up on deeply nested objects.
 */
export function sweep(doc: PDFDocument): void {
	const { context } = doc;
	const seen = new Set<PDFObject>();
	const todo: PDFObject[] = Object.values(context.trailerInfo).filter((one) => one !== undefined) as PDFObject[];
	for (let item = todo.pop(); item; item = todo.pop()) {
		if (seen.has(item)) continue;
		seen.add(item);
		if (item instanceof PDFRef) todo.push(...[context.lookup(item)].filter((one) => one !== undefined));
		else if (item instanceof PDFStream) todo.push(item.dict);
		else if (item instanceof PDFArray) todo.push(...item.asArray());
		else if (item instanceof PDFDict) todo.push(...item.values());
	}
	for (const [ref] of context.enumerateIndirectObjects()) if (!seen.has(ref)) context.delete(ref);
}
