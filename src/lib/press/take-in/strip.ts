import {
	PDFArray,
	type PDFContext,
	PDFDict,
	type PDFDocument,
	PDFName,
	PDFRef,
	PDFStream,
	type PDFObject
} from '@cantoo/pdf-lib';

/** What was taken out of a file, in words a person reads. */
export type Stripped = string;

/** Keys that make a PDF do something by itself (ISO 32000-2 §12.6), and what to call them. */
const ACTIVE: Record<string, Stripped> = {
	JS: 'JavaScript',
	JavaScript: 'JavaScript',
	OpenAction: 'an action on opening',
	AA: 'automatic actions',
	XFA: 'an XFA form',
	EmbeddedFiles: 'embedded files',
	EF: 'embedded files',
	AF: 'embedded files',
	Perms: 'usage rights',
	Collection: 'embedded files'
};

/** Action types that reach outside the page (§12.6.4). A link to a web address stays. */
const ACTIONS: Record<string, Stripped> = {
	Launch: 'launch actions',
	JavaScript: 'JavaScript',
	SubmitForm: 'form sending',
	ImportData: 'data import',
	GoToR: 'links to other files',
	GoToE: 'links to other files',
	Rendition: 'media',
	Movie: 'media',
	Sound: 'media'
};

const ANNOTATIONS: Record<string, Stripped> = {
	FileAttachment: 'embedded files',
	RichMedia: 'media',
	Movie: 'media',
	Sound: 'media',
	Screen: 'media',
	'3D': 'media'
};

/** Takes all active content out of the document, in place. What is cut loose here is dropped by the rewrite after it. */
export function stripActive(doc: PDFDocument): Stripped[] {
	const found = new Set<Stripped>();
	for (const [, object] of doc.context.enumerateIndirectObjects()) walk(doc.context, object, found, 0);
	return [...found].sort();
}

function walk(context: PDFContext, object: PDFObject, found: Set<Stripped>, depth: number): void {
	// Direct objects can't be circular; a depth beyond this is a file made to hurt.
	if (depth > 60) return;
	if (object instanceof PDFStream) return walk(context, object.dict, found, depth + 1);
	if (object instanceof PDFArray) {
		for (let i = object.size() - 1; i >= 0; i--) {
			const item = object.get(i);
			const looked = item instanceof PDFRef ? context.lookup(item) : item;
			const kind = looked instanceof PDFDict ? nameOf(looked, 'Subtype') : undefined;
			if (kind !== undefined && Object.hasOwn(ANNOTATIONS, kind) && (looked as PDFDict).has(PDFName.of('Rect'))) {
				found.add(ANNOTATIONS[kind]!);
				object.remove(i);
			} else if (!(item instanceof PDFRef)) walk(context, item, found, depth + 1);
		}
		return;
	}
	if (!(object instanceof PDFDict)) return;
	for (const [key, value] of object.entries()) {
		const name = key.decodeText();
		const target = value instanceof PDFRef ? context.lookup(value) : value;
		if (Object.hasOwn(ACTIVE, name)) {
			// An opening action that only goes to a page does no harm, but nobody misses it either.
			if (!(name === 'OpenAction' && target instanceof PDFArray)) found.add(ACTIVE[name]!);
			object.delete(key);
		} else if ((name === 'A' || name === 'Next' || name === 'PA') && target instanceof PDFDict) {
			const action = nameOf(target, 'S');
			if (action !== undefined && Object.hasOwn(ACTIONS, action)) {
				found.add(ACTIONS[action]!);
				object.delete(key);
			} else if (!(value instanceof PDFRef)) walk(context, target, found, depth + 1);
		} else if (!(value instanceof PDFRef)) walk(context, value, found, depth + 1);
	}
}

function nameOf(dict: PDFDict, key: string): string | undefined {
	const value = dict.get(PDFName.of(key));
	const name = value instanceof PDFRef ? dict.context.lookup(value) : value;
	return name instanceof PDFName ? name.decodeText() : undefined;
}
