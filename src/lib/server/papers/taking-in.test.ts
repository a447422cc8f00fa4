import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { docx } from '../../../../demo/word';
import { field, plan } from '../../../../e2e/kit/plans';
import { ok, signs, testHouse } from '../../../../e2e/kit/house';
import { pdf } from '../../../../e2e/kit/pdfs';
import { MORE, hiddenLayerPdf, onePage, stream } from '../../../../e2e/kit/raw-pdf';
import { pictureOfWords } from '../../../../e2e/kit/pictures';
import { preflight } from '../../core/packet';
import { inWords } from '../../../lib/words/record';
import { isRefusal } from '../../core/refusal';
import { needsYou } from '../desk';
import { failingJobs } from '../jobs';
import { eventsOf } from '../packets/log';
import { sendPlan } from '../packets/sending';
import {
	acceptLooks,
	addPaper,
	looksOf,
	pageLook,
	readingOf,
	reorderPaper,
	scansOf,
	wordsOfPaper,
	type TakenPaper
} from './index';

const taken = async (t: Awaited<ReturnType<typeof testHouse>>, bytes: Uint8Array, wish = {}): Promise<TakenPaper> => {
	const added = ok(await addPaper(t.house, 'Loan.pdf', bytes, wish));
	if ('attached' in added) throw new Error(added.why);
	return added;
};
const planOf = (paper: TakenPaper) => {
	const p = plan([['maren']], {
		papers: [{ id: 'paper', name: paper.name, digest: paper.digest, pages: paper.pages }]
	});
	return { ...p, fields: [field('maren-s', 'signature', 'maren', { rect: { x: 20, y: 20, width: 80, height: 20 } })] };
};

describe('a document that looks different from its file', () => {
	it('is named with its pages, can’t be sent before somebody has looked at it, and the record says who', async () => {
		const t = await testHouse();
		const paper = await taken(t, hiddenLayerPdf());
		expect(paper.unlike).toEqual([0]);
		const unlike = (digest: string) => looksOf(t.house, digest)?.unlike ?? [];
		expect(preflight(planOf(paper), t.odile, unlike)[0]).toMatchObject({ code: 'looks-different' });
		expect(sendPlan(t.house, t.odile, planOf(paper))).toMatchObject({ code: 'looks-different' });
		for (const which of ['file', 'taken'] as const) {
			const png = await pageLook(t.house, paper.digest, 0, which);
			expect((await sharp(png!).metadata()).format).toBe('png');
		}
		expect(Buffer.from((await pageLook(t.house, paper.digest, 0, 'file'))!)).not.toEqual(
			Buffer.from((await pageLook(t.house, paper.digest, 0, 'taken'))!)
		);
		// a page that doesn't differ is nothing to accept
		expect(ok(acceptLooks(t.house, t.odile, paper.digest, [0, 5])).accepted).toEqual([{ page: 0, by: 'Odile Farrow' }]);
		const sent = ok(sendPlan(t.house, t.odile, planOf(paper)));
		const [first] = eventsOf(t.house.db, sent.packet);
		expect(inWords(first!, sent.plan)).toContain(
			'page 1 looks different from its file and was accepted as it is by Odile Farrow'
		);
	});
	it('stays so when its pages are turned or brought into another order', async () => {
		const t = await testHouse();
		const paper = await taken(t, hiddenLayerPdf());
		const turned = ok(await reorderPaper(t.house, paper.digest, 'Loan', [{ from: 0, turn: 90 }]));
		expect(turned.unlike).toEqual([0]);
		expect(await pageLook(t.house, turned.digest, 0, 'file')).not.toBeNull();
	});
	it('is one that doesn’t, for nearly all: the record says that it was taken in unchanged', async () => {
		const t = await testHouse();
		const paper = await taken(t, await pdf(2));
		expect(paper.unlike).toEqual([]);
		const sent = ok(sendPlan(t.house, t.odile, planOf(paper)));
		expect(inWords(eventsOf(t.house.db, sent.packet)[0]!, sent.plan)).toContain('“Loan” was taken in unchanged.');
	});
	it('where nothing shows on a page, that is said', async () => {
		const t = await testHouse();
		expect((await taken(t, onePage({}))).notes).toEqual(['“Loan”: nothing shows on its page.']);
	});
	it('where its form is drawn onto the pages, it looks the same', async () => {
		const t = await testHouse();
		const look = stream(
			'/Subtype /Form /BBox [0 0 100 20] /Resources << /Font << /Helv 5 0 R >> >>',
			'BT /Helv 10 Tf 2 5 Td (Shown) Tj ET'
		);
		const form = onePage({
			annots: [
				`<< /Type /Annot /Subtype /Widget /FT /Tx /T (a) /V (x) /Rect [20 100 120 120] /F 4 /AP << /N ${MORE} 0 R >> >>`
			],
			more: [look]
		});
		expect((await taken(t, form)).unlike).toEqual([]);
	});
});

describe('a Word document with tracked changes', () => {
	it('waits for somebody to say how it is wanted', async () => {
		const t = await testHouse();
		const w = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
		const bytes = docx([], [], {
			'word/document.xml': `<?xml version="1.0"?><w:document ${w}><w:body><w:p><w:ins w:author="Tamsin"><w:r><w:t>new</w:t></w:r></w:ins><w:r><w:t xml:space="preserve"> words</w:t></w:r></w:p></w:body></w:document>`
		});
		expect(await addPaper(t.house, 'Letter.docx', bytes)).toMatchObject({ code: 'docx-changes' });
		const said = await Promise.all(
			(['accepted', 'before'] as const).map(async (changes) => {
				const paper = await taken(t, bytes, { changes });
				return [
					wordsOfPaper(t.house, paper.digest)[0]!
						.map((one) => one.text)
						.join(' '),
					paper.notes[0]
				];
			})
		);
		expect(said).toEqual([
			['new words', '“Loan”: 1 tracked change accepted.'],
			['words', '“Loan”: as it was before 1 tracked change.']
		]);
	});
});

describe('a scan', () => {
	it('is there at once, and its words when a machine has read them, told how far it is; each page is read once', async () => {
		const t = await testHouse();
		const picture = await pictureOfWords([
			'Agreement on the loan of a violin',
			'Signature of the borrower',
			'Date of the return'
		]);
		const paper = await taken(t, picture);
		expect(paper.scans).toEqual([0]);
		expect(scansOf(t.house, paper.digest)).toEqual({ pages: [0], done: 0, read: [] });
		expect(wordsOfPaper(t.house, paper.digest)).toEqual([[]]);
		await t.runner.drain();
		const reading = (await readingOf(t.house, paper.digest))!;
		expect(reading.scans).toMatchObject({ pages: [0], done: 1, read: [{ page: 0, lean: 0, turn: 0 }] });
		const words = reading.words[0]!;
		for (const word of ['Agreement', 'violin', 'Signature', 'borrower'])
			expect(words.find((one) => one.text === word)?.sure).toBeGreaterThan(60);
		const at = () => t.house.db.prepare('SELECT at FROM paper_scans').all();
		const before = at();
		t.clock.now += 60_000;
		expect((await taken(t, picture)).digest).toBe(paper.digest);
		await t.runner.drain();
		expect(at()).toEqual(before);
	});
	it('never keeps a letter waiting: reading has a row of its own among the jobs', async () => {
		const t = await testHouse();
		const scans = ['violin', 'viola', 'cello', 'harp', 'flute', 'oboe'];
		for (const one of scans) await taken(t, await pictureOfWords([`Agreement on the loan of a ${one}`]));
		const sent = ok(sendPlan(t.house, t.odile, planOf(await taken(t, await pdf(1)))));
		t.runner.start();
		const count = (sql: string) => t.house.db.prepare<[], number>(sql).pluck().get()!;
		for (let i = 0; i < 100 && count('SELECT count(*) FROM mailbox') === 0; i++)
			await new Promise((go) => setTimeout(go, 20));
		const unread = count("SELECT count(*) FROM jobs WHERE kind = 'read' AND done_at IS NULL");
		const mails = count('SELECT count(*) FROM mailbox');
		await t.runner.stop();
		expect([isRefusal(sent), mails, unread > 0]).toEqual([false, 1, true]);
	});
});

describe('a signature that can’t be seen on its page', () => {
	it('is no sealed copy: the job fails, the Desk says why, and the answers are kept', async () => {
		const t = await testHouse();
		// a page painted in the very ink that answers are stamped in
		const paper = await taken(t, onePage({ content: '0.07 0.1 0.2 rg 0 0 300 200 re f' }));
		ok(sendPlan(t.house, t.odile, planOf(paper)));
		await t.runner.drain();
		await signs(t, 'maren@post.example');
		const [failing] = failingJobs(t.house);
		expect(failing).toMatchObject({ kind: 'seal', attempts: 1 });
		expect(failing!.error).toMatch(/1 of the answers can’t be seen on “Loan” \(page 1\), so no sealed copy was made/);
		expect(needsYou(t.house, t.odile).some((need) => need.what === 'jobs')).toBe(true);
	});
});
