import { PDFArray, PDFDict, PDFName, PDFRef, type PDFDocument, type PDFObject } from '@cantoo/pdf-lib';

const name = (text: string) => PDFName.of(text);

/** Tells of an annotation's or a form's /OC whether its layer is switched off when the file is opened (ISO 32000-2 §8.11). */
export function layersOf(doc: PDFDocument): (oc: PDFObject | undefined) => boolean {
	const properties = doc.catalog.lookup(name('OCProperties'));
	const config = properties instanceof PDFDict ? properties.lookup(name('D')) : undefined;
	if (!(config instanceof PDFDict)) return () => false;
	const listed = (key: string) => {
		const array = config.lookup(name(key));
		return new Set(array instanceof PDFArray ? array.asArray().map(String) : []);
	};
	const [on, off] = [listed('ON'), listed('OFF')];
	const base = String(config.lookup(name('BaseState')) ?? '/ON');
	const groupIsOff = (group: PDFObject) => off.has(String(group)) || (base === '/OFF' && !on.has(String(group)));
	return (oc) => {
		const dict = oc instanceof PDFRef ? doc.context.lookup(oc) : oc;
		if (!oc || !(dict instanceof PDFDict)) return false;
		if (String(dict.lookup(name('Type'))) !== '/OCMD') return groupIsOff(oc);
		const groups = dict.get(name('OCGs'));
		const found = groups instanceof PDFRef ? doc.context.lookup(groups) : groups;
		const members = found instanceof PDFArray ? found.asArray() : groups ? [groups] : [];
		if (members.length === 0) return false;
		const states = members.map((group) => !groupIsOff(group));
		switch (String(dict.lookup(name('P')) ?? '/AnyOn')) {
			case '/AllOn':
				return !states.every(Boolean);
			case '/AnyOff':
				return states.every(Boolean);
			case '/AllOff':
				return states.some(Boolean);
			default:
				return !states.some(Boolean);
		}
	};
}
