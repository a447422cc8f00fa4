import { degrees, PDFDocument, PDFName, PDFString, StandardFonts } from '@cantoo/pdf-lib';

/** PDFs for tests, made on the spot. */
export async function pdf(
	pages = 2,
	{ turn = 0, crop = false, size = [595, 842] as [number, number], text = 'Hello world' } = {}
): Promise<Uint8Array> {
	const doc = await PDFDocument.create();
	const font = await doc.embedFont(StandardFonts.Helvetica);
	for (let i = 0; i < pages; i++) {
		const page = doc.addPage(size);
		page.drawText(`${text} ${i + 1}`, { x: 100, y: 700, font, size: 14 });
		if (turn) page.setRotation(degrees(turn));
		if (crop) page.setCropBox(40, 60, 400, 500);
	}
	return doc.save({ useObjectStreams: false });
}

/** One with everything in it that acts by itself. */
export async function livelyPdf(): Promise<Uint8Array> {
	const doc = await PDFDocument.create();
	const page = doc.addPage();
	doc.addJavaScript('greet', 'app.alert("hello")');
	await doc.attach(Buffer.from('a program'), 'setup.exe');
	const { context } = doc;
	const launch = context.obj({ Type: 'Action', S: 'Launch', F: PDFString.of('setup.exe') });
	doc.catalog.set(PDFName.of('OpenAction'), launch);
	page.node.set(PDFName.of('AA'), context.obj({ O: launch }));
	page.node.addAnnot(
		context.register(context.obj({ Type: 'Annot', Subtype: 'Link', Rect: [0, 0, 9, 9], A: context.register(launch) }))
	);
	const form = doc.getForm();
	const box = form.createTextField('name');
	box.setText('kept on the page');
	box.addToPage(page, { x: 50, y: 50, width: 200, height: 20 });
	return doc.save({ useObjectStreams: false });
}

/** A PDF that asks for a password: only its trailer says so, which is what readers look at first. */
export async function lockedPdf(): Promise<Uint8Array> {
	const plain = Buffer.from(await pdf(1)).toString('latin1');
	const entry =
		`/Encrypt << /Filter /Standard /V 1 /R 2 /P -44 /O <${'28'.repeat(32)}> /U <${'4e'.repeat(32)}> >> ` +
		`/ID [<${'00'.repeat(16)}> <${'00'.repeat(16)}>] `;
	return Buffer.from(
		plain.replace(/trailer\s*<</, (m) => `${m} ${entry}`),
		'latin1'
	);
}
