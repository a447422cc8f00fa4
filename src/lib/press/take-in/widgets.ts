import {
	PDFCheckBox,
	PDFDict,
	PDFDropdown,
	PDFName,
	PDFOptionList,
	PDFRadioGroup,
	PDFSignature,
	PDFString,
	PDFHexString,
	PDFTextField,
	type PDFDocument,
	type PDFField
} from '@cantoo/pdf-lib';
import type { PdfWidget } from '../../core/page';
import { pageBox } from '../box';

type Meaning = Pick<PdfWidget, 'kind' | 'settings' | 'filled'>;

/**
 * The form fields of a PDF (ISO 32000-2 §12.7), one entry a widget, in page space. Must run before active content is
 * taken out: what a field checks is told by its format script, of which only the well-known calls are read.
 */
export function readWidgets(doc: PDFDocument): PdfWidget[] {
	const pages = doc.getPages();
	const onPage = new Map<PDFDict, number>();
	pages.forEach((page, number) => {
		const annots = page.node.Annots();
		for (let i = 0; i < (annots?.size() ?? 0); i++) {
			const dict = annots!.lookup(i);
			if (dict instanceof PDFDict) onPage.set(dict, number);
		}
	});
	const found: PdfWidget[] = [];
	for (const field of fieldsOf(doc)) {
		try {
			field.acroField.getWidgets().forEach((widget, index) => {
				const meaning = meaningOf(field, index);
				const number = onPage.get(widget.dict) ?? -1;
				const page = pages[number];
				if (!meaning || !page) return;
				const box = pageBox(page);
				const rect = widget.getRectangle();
				found.push({
					page: number,
					x: rect.x - box.x,
					y: rect.y - box.y,
					width: rect.width,
					height: rect.height,
					name: field.getName(),
					label: textOf(field.acroField.dict.lookup(PDFName.of('TU'))) || lastPart(field.getName()),
					required: field.isRequired(),
					...meaning
				});
			});
		} catch {
			// a field that is not as the standard wants it is no field to take over; what it shows stays on the page
		}
	}
	return found;
}

/** The fields of the form; none where it is not as the standard wants it. */
function fieldsOf(doc: PDFDocument): PDFField[] {
	try {
		return doc.catalog.has(PDFName.of('AcroForm')) ? doc.getForm().getFields() : [];
	} catch {
		return [];
	}
}

function meaningOf(field: PDFField, index: number): Meaning | null {
	if (field instanceof PDFTextField) return textMeaning(field);
	if (field instanceof PDFSignature) return { kind: 'signature', settings: {}, filled: false };
	if (field instanceof PDFCheckBox) {
		const on = field.acroField.getWidgets()[index]?.getOnValue()?.decodeText() ?? 'yes';
		return { kind: 'ticks', settings: { value: on }, filled: field.isChecked() };
	}
	if (field instanceof PDFRadioGroup) {
		const on = field.acroField.getWidgets()[index]?.getOnValue()?.decodeText();
		const options = field.getOptions();
		const value = options[index] ?? on ?? String(index + 1);
		return { kind: 'pick-one', settings: { value }, filled: field.getSelected() !== undefined };
	}
	if (field instanceof PDFDropdown || field instanceof PDFOptionList) {
		const options = field.acroField
			.getOptions()
			.map(({ value, display }) => ({ value: value.decodeText(), text: (display ?? value).decodeText() }))
			.filter((o) => o.value !== '')
			.slice(0, 500);
		return { kind: 'choice', settings: { options }, filled: field.getSelected().some((one) => one.trim() !== '') };
	}
	return null;
}

function textMeaning(field: PDFTextField): Meaning {
	const filled = (field.getText() ?? '').trim() !== '';
	const script = scripts(field.acroField.dict);
	const number = /AFNumber_Format\(\s*(\d)/.exec(script);
	if (number || /AFPercent_Format/.test(script)) {
		const range = /AFRange_Validate\(\s*(true|false)\s*,\s*(-?[\d.]+)\s*,\s*(true|false)\s*,\s*(-?[\d.]+)/.exec(script);
		return {
			kind: 'number',
			settings: {
				...(number && { decimals: Math.min(6, Number(number[1])) }),
				...(range?.[1] === 'true' && { least: range[2]! }),
				...(range?.[3] === 'true' && { most: range[4]! })
			},
			filled
		};
	}
	if (/AFDate_Format/.test(script)) return { kind: 'date', settings: { format: 'short' }, filled };
	const most = field.getMaxLength();
	return {
		kind: 'text',
		settings: {
			...(field.isMultiline() && { several: true }),
			...(most !== undefined &&
				most > 0 &&
				(field.isCombed() && most <= 60 ? { boxes: most } : { most: Math.min(2000, most) }))
		},
		filled
	};
}

/** The text of a field's additional actions (§12.6.3): key press, format, validation. */
function scripts(dict: PDFDict): string {
	const actions = dict.lookup(PDFName.of('AA'));
	if (!(actions instanceof PDFDict)) return '';
	return ['K', 'F', 'V']
		.map((name) => actions.lookup(PDFName.of(name)))
		.map((action) => (action instanceof PDFDict ? textOf(action.lookup(PDFName.of('JS'))) : ''))
		.join('\n');
}

function textOf(value: unknown): string {
	return value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : '';
}

/** Names are paths (`form.address.town`); people call a field by the last part. */
function lastPart(name: string): string {
	const part = name.split('.').pop() ?? '';
	return part
		.replace(/\[\d+\]$/, '')
		.replace(/[_-]+/g, ' ')
		.trim();
}
