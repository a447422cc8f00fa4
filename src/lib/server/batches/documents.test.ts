import { strToU8, zipSync } from 'fflate';
import { beforeEach, describe, expect, it } from 'vitest';
import { engagement } from '../../../../demo/documents';
import { csv } from '../../../../demo/stewards';
import { pdf } from '../../../../e2e/kit/pdfs';
import { account, idle, ok, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { field, plan } from '../../../../e2e/kit/plans';
import { checkData } from '../check';
import { permitted } from '../access';
import { packetState } from '../packets/act';
import { addPaper } from '../papers';
import { newTemplate, putInUse } from '../templates';
import {
	acceptDocument,
	addDocuments,
	batchRows,
	documentsOf,
	layAnew,
	newBatch,
	planOfRow,
	readBatch,
	replaceSheet,
	runBatch,
	verdictsOf
} from './index';

let t: TestHouse;
let id: string;
const HEADS = ['Name', 'E-mail', 'File'];
const letter = (name: string, what = 'the winter tour') => engagement(name, 'viola', what, 'GBP 180.00');
const LONG = 'the winter tour in the northern towns and the two days of recording that follow it at Staunton';

beforeEach(async () => {
	t = await testHouse();
	const first = await letter('the musician');
	const taken = ok(await addPaper(t.house, 'Engagement.pdf', first.bytes));
	if ('attached' in taken) throw new Error(taken.why);
	const p = plan([['musician']], {
		title: 'Engagement',
		papers: [{ id: 'paper', name: taken.name, digest: taken.digest, pages: taken.pages }],
		people: [{ id: 'musician', role: 'Musician', name: '', email: '', duty: 'signs' }]
	});
	p.fields = Object.entries(first.places)
		.filter(([key]) => key.startsWith('musician.'))
		.map(([key, place]) => ({
			...field(key.replace('.', '-'), key.endsWith('signature') ? 'signature' : 'text', 'musician', {
				page: place.page,
				required: false
			}),
			label: key,
			rect: place.rect
		}));
	const draft = newTemplate(t.house, t.odile, p, 'Engagement');
	const { template } = ok(putInUse(t.house, t.odile, draft.id, draft.revision, 'first'));
	const rows = [
		HEADS,
		['Ann', 'ann@post.example', 'Ann.pdf'],
		['Ben', 'ben@post.example', 'BEN'],
		['Cy', 'cy@post.example', ''],
		['Di', 'di@post.example', 'di']
	];
	({ id } = ok(await newBatch(t.house, t.odile, template, 'list.csv', csv(rows))));
});

const rows = () => {
	const batch = ok(readBatch(t.house, id));
	const { verdicts } = ok(verdictsOf(t.house, t.odile, batch));
	return batchRows(t.house, batch, verdicts, new URLSearchParams()).rows.map(({ is, said }) => `${is}: ${said}`);
};

describe('documents of their own', () => {
	it('are taken from a ZIP, laid under the template’s fields, and each row goes with its own', async () => {
		expect(rows().map((row) => row.split(':')[0])).toEqual(['ready', 'ready', 'ready', 'ready']);
		const zip = zipSync({
			'letters/Ann.pdf': (await letter('Ann')).bytes,
			'letters/ben.pdf': (await letter('Ben', LONG)).bytes,
			'letters/di.pdf': strToU8('no PDF'),
			'letters/notes.txt': strToU8('left out')
		});
		expect(await addDocuments(t.house, t.odile, id, [{ name: 'letters.zip', bytes: zip }])).toBeNull();
		expect(ok(readBatch(t.house, id)).setting.mapping['document']).toMatchObject({ columns: [2] });
		expect(rows()[0]).toBe('faulty: “Ann.pdf” is being read.');
		await idle(t);
		const { counts, look } = documentsOf(t.house, id);
		expect(counts).toEqual({ waits: 0, ready: 1, doubt: 1, refused: 1 });
		expect(look.map(({ key, state }) => [key, state])).toEqual([
			['ben', 'doubt'],
			['di', 'refused']
		]);
		expect(rows()).toEqual([
			'ready: ready',
			expect.stringMatching(/^faulty: “ben.pdf” wants a look: .*moved from page 1 to page 2/),
			'ready: ready',
			expect.stringMatching(/^faulty: “di”: /)
		]);
		expect(acceptDocument(t.house, id, 'ben')).toBeNull();
		expect(acceptDocument(t.house, id, 'ben')).toMatchObject({ code: 'no-document' });
		const rehearsed = ok(planOfRow(t.house, t.odile, ok(readBatch(t.house, id)), 1));
		expect(rehearsed.papers[0]).toMatchObject({ id: 'paper', name: 'ben' });
		// whose batch it is sees the document, nobody else does
		const other = await account(t.house, 'Ruben', 'ruben@x.example', 'preparer');
		const seen = (who = t.odile) => permitted(t.house.db, who, 'see', 'file', rehearsed.papers[0]!.digest);
		expect([seen(), seen(other)]).toEqual([true, false]);
		ok(runBatch(t.house, t.odile, id));
		await idle(t);
		const sent = t.house.db
			.prepare<[], { email: string; packet: string }>('SELECT email, packet FROM packet_people ORDER BY email')
			.all();
		expect(sent.map(({ email }) => email)).toEqual(['ann@post.example', 'ben@post.example', 'cy@post.example']);
		const names = sent.map(({ packet }) => {
			const state = packetState(t.house.db, packet);
			return state.status === 'none' ? '' : state.plan.papers[0]!.name;
		});
		expect(names).toEqual(['Ann', 'ben', 'Engagement']);
		expect(checkData(t.house.db).faults).toEqual([]);
	});
	it('that are missing, given again, or laid for an older template say so', async () => {
		await addDocuments(t.house, t.odile, id, [{ name: 'Ann.pdf', bytes: await pdf(1, { text: 'Something else' }) }]);
		await idle(t);
		expect(rows()[0]).toMatch(/^faulty: “Ann.pdf”/);
		expect(rows()[1]).toBe('faulty: There is no document called “BEN” among those given.');
		await addDocuments(t.house, t.odile, id, [{ name: 'ann.PDF', bytes: (await letter('Ann')).bytes }]);
		await idle(t);
		expect([documentsOf(t.house, id).counts.ready, rows()[0]]).toEqual([1, 'ready: ready']);
		t.house.db.prepare('UPDATE batch_documents SET version = 0').run();
		t.house.db.prepare('UPDATE batches SET revision = revision + 1').run();
		expect(rows()[0]).toContain('The template was changed');
		layAnew(t.house, t.odile, id);
		// a newer sheet with other columns finds its documents by its own
		const other = [
			['E-mail', 'Document', 'Name'],
			['ann@post.example', 'Ann', 'Ann']
		];
		expect(await replaceSheet(t.house, t.odile, id, csv(other))).toBeNull();
		expect(ok(readBatch(t.house, id)).setting.mapping['document']).toMatchObject({ columns: [1] });
		await idle(t);
		expect(rows()[0]).toBe('ready: ready');
	});
	it('that can’t be taken keep the batch as it was, with a sentence', async () => {
		const code = async (name: string, bytes: Uint8Array) =>
			(await addDocuments(t.house, t.odile, id, [{ name, bytes }]))?.code;
		expect(await code('x.zip', zipSync({ 'a.txt': strToU8('x') }))).toBe('bundle-empty');
		expect(await code('x.zip', new Uint8Array([80, 75, 3, 4, 9, 9, 9]))).toMatch(/^bundle-/);
		const bomb = zipSync({ 'a.pdf': new Uint8Array(310 * 1024 * 1024) }, { level: 1 });
		expect(await code('x.zip', bomb)).toBe('bundle-heavy');
		expect(documentsOf(t.house, id).counts).toEqual({ waits: 0, ready: 0, doubt: 0, refused: 0 });
		expect(rows()[0]).toBe('ready: ready');
	});
});
