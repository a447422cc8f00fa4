import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { account, idle, linkTo, mails, ok, out, signs, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { isRefusal } from '../../core/refusal';
import { closePool } from '../../press';
import { checkData } from '../check';
import { folderNamed, openFolder } from '../folders';
import { packetPage, typesIn } from '../lists';
import { BY_ITSELF } from '../office-record';
import { eventsOf } from '../packets/log';
import { binDraft, binnedDrafts, restoreDraft } from '../packets/draft-bin';
import { draftsOf, newDraft, saveDraft } from '../packets/drafts';
import { copiesOf } from '../packets/copies';
import { packetState } from '../packets/act';
import { scheduleDraft } from '../packets/schedule';
import { countEnded, findPackets, records } from '../records';
import { visit } from '../signing';
import { answersOfMany, copiesAsZip, file, fileMany, listOfMany, setKeeping } from './index';

let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});
afterAll(closePool);

/** One that Maren has signed, sealed. */
async function ended(more: Parameters<typeof out>[3] = {}): Promise<string> {
	const packet = await out(t, [['maren']], {}, more);
	await signs(t, 'maren@post.example');
	await idle(t);
	return packet;
}
const listed = (put?: 'archive' | 'bin', search = '') =>
	records(t.house, t.odile, search, { list: 'ended', filter: put ? { put } : {} }).rows.map(({ id }) => id);
const sound = () => expect(checkData(t.house.db).faults).toEqual([]);
const events = (packet: string) => eventsOf(t.house.db, packet).map(({ type }) => type);

describe('what has ended', () => {
	it('is archived out of the way and found by search; binned it is found nowhere but there; taken back it is where it was', async () => {
		const packet = await ended();
		ok(file(t.house, t.odile, packet, { do: 'archive' }));
		expect([listed(), listed('archive'), listed('bin')]).toEqual([[], [packet], []]);
		expect(listed(undefined, 'engagement')).toEqual([packet]);
		sound();
		ok(file(t.house, t.odile, packet, { do: 'bin' }));
		expect([listed(), listed('archive'), listed('bin')]).toEqual([[], [], [packet]]);
		expect([listed(undefined, 'engagement'), listed('bin', 'engagement')]).toEqual([[], [packet]]);
		expect(findPackets(t.house, t.odile, 'engagement')).toEqual([]);
		expect(countEnded(t.house, t.odile, 'bin')).toBe(1);
		sound();
		ok(file(t.house, t.odile, packet, { do: 'restore' }));
		expect([listed(), listed('archive'), listed('bin')]).toEqual([[packet], [], []]);
		expect(countEnded(t.house, t.odile)).toBe(1);
		sound();
		expect(events(packet).slice(-3)).toEqual(['PacketPutAway', 'PacketPutAway', 'PacketRestored']);
		// the same again is nothing new
		ok(file(t.house, t.odile, packet, { do: 'restore' }));
		expect(events(packet).filter((one) => one === 'PacketRestored')).toHaveLength(1);
	});
	it('that is still out is withdrawn first, with a reason that reaches who has it', async () => {
		const packet = await out(t, [['maren'], ['tamsin']]);
		const link = linkTo(t.house, 'maren@post.example');
		expect(file(t.house, t.odile, packet, { do: 'bin' })).toMatchObject({ code: 'reason-missing' });
		expect(events(packet)).not.toContain('PacketPutAway');
		ok(file(t.house, t.odile, packet, { do: 'bin', reason: 'Sent to the wrong Maren.' }));
		await idle(t);
		expect(events(packet)).toEqual(expect.arrayContaining(['PacketWithdrawn', 'PacketPutAway']));
		expect(mails(t.house, 'maren@post.example').at(-1)?.text).toContain('Sent to the wrong Maren.');
		const opened = visit(t.house, link);
		expect(isRefusal(opened) ? opened.code : opened.packet.status).toBe('withdrawn');
		sound();
		// what has ended stays so
		ok(file(t.house, t.odile, packet, { do: 'restore' }));
		expect(packetState(t.house.db, packet)).toMatchObject({ status: 'withdrawn', put: null });
	});
	it('is done to many, each by itself; what is refused says why and keeps nothing from the others', async () => {
		const [first, still, other] = [await ended(), await out(t, [['tamsin']]), await ended()];
		const folder = folderNamed(t.house, BY_ITSELF, 'Board');
		openFolder(t.house, BY_ITSELF, folder, false);
		const mio = await account(t.house, 'Mio', 'mio@x.example', 'preparer');
		ok(file(t.house, t.odile, other, { do: 'folder', folder: 'Board' }));
		const done = await fileMany(t.house, mio, [first, still, other, 'nothing', first], { do: 'archive' });
		expect(done.done).toEqual([first]);
		expect(done.refused.map(({ id }) => id)).toEqual([still, other, 'nothing']);
		expect(done.refused[0]?.say).toContain('Say why it is withdrawn');
		sound();
	});
	it('lies in another folder or under another type, in the record and in the filters', async () => {
		const packet = await ended({ sending: { type: 'Engagement' } });
		await ended({ sending: { type: 'lease' } });
		folderNamed(t.house, BY_ITSELF, 'Players');
		ok(file(t.house, t.odile, packet, { do: 'folder', folder: 'Players' }));
		ok(file(t.house, t.odile, packet, { do: 'type', type: ' Überlassung\nalt ' }));
		await idle(t);
		expect(typesIn(t.house, t.odile)).toEqual(['lease', 'Überlassung alt']);
		const by = (filter: object) => packetPage(t.house, t.odile, { list: 'ended', filter }).rows.map(({ id }) => id);
		expect(by({ type: 'überlassung ALT' })).toEqual([]);
		expect(by({ type: 'Überlassung alt' })).toEqual([packet]);
		expect(by({ folder: 'Players' })).toEqual([packet]);
		expect(listed(undefined, 'uberlassung')).toEqual([packet]);
		expect(eventsOf(t.house.db, packet).at(-1)).toMatchObject({ type: 'TypeChanged', was: 'Engagement' });
		expect(file(t.house, t.odile, packet, { do: 'folder', folder: 'Nowhere' })).toMatchObject({ code: 'no-folder' });
		sound();
	});
	it('is put in order by the migration as by what writes it', async () => {
		await ended({ sending: { type: 'Lease', ownReference: 'A/7', term: { months: 6, notice: null } } });
		await ended();
		const kept = t.house.db.prepare('SELECT * FROM packet_order ORDER BY put, sort, value, n').all();
		const sql = readFileSync('src/lib/server/db/migrations/029-put-away.sql', 'utf8');
		const part = sql.slice(sql.indexOf('CREATE TEMP TABLE last_plans'), sql.indexOf('-- How many lie where'));
		t.house.db.exec(
			`DELETE FROM packet_order; UPDATE packets SET type = '', own_reference = '', template_title = '', size = 0; ${part}`
		);
		expect(t.house.db.prepare('SELECT * FROM packet_order ORDER BY put, sort, value, n').all()).toEqual(kept);
		sound();
	});
});

describe('what leaves', () => {
	it('is one ZIP with a folder each, named by the office’s pattern, and in each record', async () => {
		const packets = [await ended(), await ended(), await out(t, [['tamsin']])];
		expect(setKeeping(t.house.db, { fileNames: 'same', binDays: 30, two: false })).toMatchObject({
			code: 'pattern-same'
		});
		ok(setKeeping(t.house.db, { fileNames: '{date} {title} {person} signed', binDays: 30, two: false }));
		const state = packetState(t.house.db, packets[0]!);
		if (state.status !== 'completed') throw new Error(state.status);
		expect(copiesOf(t.house.db, state).map(({ name }) => name)).toEqual([
			'2026-11-24 Guest musician engagement Maren signed.pdf',
			'2026-11-24 Guest musician engagement Maren signed Evidence sheet.pdf'
		]);
		const mio = await account(t.house, 'Mio', 'mio@x.example', 'viewer');
		const { stream, bytes } = copiesAsZip(t.house, mio, [...packets, 'nothing']);
		const zip = new Uint8Array(await new Response(stream).arrayBuffer());
		expect(Math.abs(bytes - zip.length)).toBeLessThan(zip.length);
		const files = Object.entries(unzipSync(zip));
		expect(files).toHaveLength(8);
		expect(new Set(files.map(([name]) => name.split('/')[0])).size).toBe(2);
		expect(files.find(([name]) => name.endsWith('signed.pdf'))?.[1].slice(0, 5)).toEqual(
			new TextEncoder().encode('%PDF-')
		);
		expect(eventsOf(t.house.db, packets[0]!).at(-1)).toMatchObject({
			type: 'CopyFetched',
			by: { account: mio.id }
		});
	});
	it('is nothing of a closed folder, in no form', async () => {
		const packet = await ended();
		const folder = folderNamed(t.house, BY_ITSELF, 'Board');
		ok(file(t.house, t.odile, packet, { do: 'folder', folder }));
		openFolder(t.house, BY_ITSELF, folder, false);
		const mio = await account(t.house, 'Mio', 'mio@x.example', 'preparer');
		const zip = await new Response(copiesAsZip(t.house, mio, [packet]).stream).arrayBuffer();
		expect(Object.keys(unzipSync(new Uint8Array(zip)))).toEqual([]);
		const text = async (made: ReturnType<typeof listOfMany>) => new TextDecoder().decode((await made).bytes);
		expect((await text(answersOfMany(t.house, mio, [packet], 'csv'))).trim().split('\n')).toHaveLength(1);
		expect((await text(listOfMany(t.house, mio, [packet], 'csv'))).trim().split('\n')).toHaveLength(1);
	});
	it('is the answers of many, a column a key, and the list as it stands', async () => {
		const packets = [await ended(), await ended({ title: '=HYPERLINK("x")' })];
		const text = async (made: ReturnType<typeof listOfMany>) => new TextDecoder().decode((await made).bytes);
		const answers = (await text(answersOfMany(t.house, t.odile, packets, 'csv'))).split('\r\n');
		expect(answers[0]).toContain('reference,title,state,ended,');
		expect(answers[0]).toContain('maren_name');
		expect(answers[2]).toContain('\'=HYPERLINK(""x"")');
		const list = (await text(listOfMany(t.house, t.odile, packets, 'csv'))).split('\r\n');
		expect(list[1]).toContain(',Guest musician engagement,');
		expect(list).toHaveLength(4);
	});
});

describe('a draft in the bin', () => {
	it('is in no list but that one, can’t be saved or sent by itself, and comes back as it was', async () => {
		const draft = newDraft(t.house, t.odile, { ...newDraft(t.house, t.odile).plan, title: 'Letter' });
		ok(binDraft(t.house, t.odile, draft.id));
		expect(draftsOf(t.house, t.odile).map(({ id }) => id)).not.toContain(draft.id);
		expect(binnedDrafts(t.house, t.odile)).toMatchObject([{ id: draft.id, title: 'Letter' }]);
		expect(saveDraft(t.house, t.odile, draft.id, 1, draft.plan)).toMatchObject({ code: 'binned' });
		expect(scheduleDraft(t.house, t.odile, draft.id, 1, '2027-01-01T00:00:00.000Z')).toMatchObject({ code: 'binned' });
		const mio = await account(t.house, 'Mio', 'mio@x.example', 'preparer');
		expect(isRefusal(restoreDraft(t.house, mio, draft.id))).toBe(true);
		ok(restoreDraft(t.house, t.odile, draft.id));
		expect(draftsOf(t.house, t.odile).map(({ id }) => id)).toContain(draft.id);
		expect(saveDraft(t.house, t.odile, draft.id, 1, draft.plan)).toMatchObject({ revision: 2 });
	});
});
