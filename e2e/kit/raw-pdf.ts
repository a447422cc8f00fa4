/** PDFs written object by object, for tests of what other producers leave in theirs. */

/** A stream with its length (ISO 32000-2 §7.3.8); `dict` without the brackets. */
export function stream(dict: string, data: string): string {
	return `<< ${dict} /Length ${Buffer.byteLength(data, 'latin1')} >>\nstream\n${data}\nendstream`;
}

/** A file of these objects, numbered from 1; the first is the catalog. */
export function rawPdf(objects: string[], trailer = ''): Uint8Array {
	let text = '%PDF-1.7\n%\xe2\xe3\xcf\xd3\n';
	const at = objects.map((object, i) => {
		const here = Buffer.byteLength(text, 'latin1');
		text += `${i + 1} 0 obj\n${object}\nendobj\n`;
		return here;
	});
	const start = Buffer.byteLength(text, 'latin1');
	text += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n`;
	text += at.map((n) => `${String(n).padStart(10, '0')} 00000 n \n`).join('');
	text += `trailer\n<< /Size ${objects.length + 1} /Root 1 0 R ${trailer} >>\nstartxref\n${start}\n%%EOF\n`;
	return new Uint8Array(Buffer.from(text, 'latin1'));
}

/** What a page of {@link onePage} is made of. */
export interface RawPage {
	content?: string;
	/** dictionaries of annotations; widgets among them are the form's fields, unless `fields` says which are */
	annots?: string[];
	fields?: string;
	/** what else stands in the form's, the page's and the catalog's dictionary */
	form?: string;
	page?: string;
	catalog?: string;
	mediaBox?: string;
	/** further objects, numbered from 20 on */
	more?: string[];
}

/** The first of the further objects of {@link onePage}. */
export const MORE = 20;

/** One page of 300 x 200 with Helvetica as /F1, its annotations as objects from 6 on. */
export function onePage({
	content = '',
	annots = [],
	fields,
	form = '',
	page = '',
	catalog = '',
	mediaBox = '/MediaBox [0 0 300 200]',
	more = []
}: RawPage): Uint8Array {
	const refs = annots.map((_, i) => `${6 + i} 0 R`);
	const widgets = fields ?? refs.filter((_, i) => annots[i]!.includes('/Widget')).join(' ');
	const acroForm =
		widgets === '' && form === ''
			? ''
			: `/AcroForm << /Fields [${widgets}] /DR << /Font << /Helv 5 0 R >> >> /DA (/Helv 10 Tf 0 g) ${form} >>`;
	const objects = [
		`<< /Type /Catalog /Pages 2 0 R ${acroForm} ${catalog} >>`,
		`<< /Type /Pages /Kids [3 0 R] /Count 1 >>`,
		`<< /Type /Page /Parent 2 0 R ${mediaBox} /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> /Annots [${refs.join(' ')}] ${page} >>`,
		stream('', content),
		`<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>`,
		...annots
	];
	if (objects.length >= MORE) throw new Error('too many annotations');
	while (objects.length < MORE - 1) objects.push('null');
	return rawPdf([...objects, ...more]);
}

/**
 * A file whose page tree is not as the standard wants it and which has a hidden layer: taken in by its pages alone, it
 * loses what hides the layer, and so looks different.
 */
export function hiddenLayerPdf(): Uint8Array {
	const say = (size: number, y: number, text: string) => `BT /F1 ${size} Tf 60 ${y} Td (${text}) Tj ET`;
	return rawPdf([
		'<< /Type /Catalog /Pages 2 0 R /OCProperties << /OCGs [6 0 R] /D << /OFF [6 0 R] >> >> >>',
		'<< /Type /Page /Kids [3 0 R] /Count 1 >>',
		'<< /Type /Pages /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> /Properties << /L 6 0 R >> >> >>',
		stream(
			'',
			`${say(18, 740, 'Instrument loan')} ${say(11, 700, 'The fee is GBP 185 for the season.')} /OC /L BDC ${say(60, 420, 'OLD DRAFT')} EMC ${say(11, 300, 'Signature of the borrower: ______________________')}`
		),
		'<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
		'<< /Type /OCG /Name (Draft) >>'
	]);
}
