import sharp from 'sharp';
import Database from 'better-sqlite3';
import { beforeAll, expect, it } from 'vitest';
import { csv, stewards } from '../../../demo/stewards';
import {
	account,
	FROM,
	idle,
	ok,
	out,
	paper,
	realPlan,
	sent,
	signs,
	testHouse,
	visitor,
	type TestHouse
} from '../../../e2e/kit/house';
import { signIn } from './accounts';
import { makeKey } from './api';
import { newBatch, runBatch } from './batches';
import { checkData } from './check';
import type { Db } from './db';
import { folderNamed, openFolder, setMember } from './folders';
import { newFeed } from './feeds';
import { setKeeping } from './filing';
import { dispose, keepRule, setHold } from './keeping';
import { witnessed } from './keeping/witness';
import { addHoliday } from './holidays';
import { makeHook } from './hooks';
import { BY_ITSELF, type Doer } from './office-record';
import { newDraft } from './packets/drafts';
import { newTemplate, putInUse } from './templates';
import { addIdentityPicture, handInIdentity } from './identity';
import { noteKnown } from './identity/known';
import { addReturned, bringerOf, fetchPaper, handInReturn, setPaper } from './paper';
import { COMMISSION } from '../../../e2e/kit/commission';
import { doInRoom, drawSeal, keepNotary } from './notary';
import { packetState } from './packets/act';
import { askWording, openAndConsent, saveAnswers } from './signing';

/** Each column of each table is changed in turn: check-data says it, or a reason stands here why it may differ. */
const MAY_DIFFER: Record<string, string> = {
	'meta.*': 'settings and the demo’s clock: a value is as good as another',
	'list_settings.*': 'how somebody has their lists: no part of any record',
	'accounts.totp': 'locked under PELLUM_KEY; a changed one can’t be unlocked',
	'accounts.totp_step': 'when the last code was taken',
	'accounts.subject': 'the directory’s own name for somebody',
	'account_links.*': 'links in letters, for an hour or a week',
	'passkeys.*': 'a changed one opens nothing',
	'recovery_codes.*': 'keyed hashes: a changed one opens nothing',
	'accounts.password': 'a hash with its salt: another one is another password',
	'sessions.*': 'who is signed in; only whether its moments and digests are such can be told',
	'witness_roots.*': 'the stand-in’s own: held against the tree by whoever asks',
	'retention_rules.*': 'settings; what they come to is reckoned anew and compared',
	'holds.*': 'set and lifted by somebody, which the office’s record tells',
	'hold_packets.*': 'the same',
	'disposal_wishes.*': 'the first word of two',
	'disposals.at': 'stands on the certificate, which is sealed',
	'disposals.by': 'the same',
	'disposals.second': 'the same',
	'disposals.why': 'the same',
	'disposals.certificate': 'another file that is here is as good to this check',
	'folders.made_at': 'another moment is as good, where it is one',
	'morning_letters.*': 'who wants a letter, and when the next one is due',
	'field_counts.*': 'counted from pages, without who: nothing else tells it',
	'field_last.*': 'the same',
	'pace_behind.*': 'what is still to be counted',
	'packets.unusual': 'reckoned anew twice a day',
	'packets.likely': 'the same',
	'forecasts.*': 'reckoned anew twice a day; what is counted of them is compared with the days to come',
	'holidays.*': 'typed by somebody or taken from a calendar',
	'saved_texts.*': 'kept letters, changed by nobody’s event',
	'blobs.created_at': 'another moment is as good, where it is one',
	'papers.pages': 'read from the document; reading it again would take as long as taking it in',
	'papers.words': 'the same',
	'papers.stripped': 'the same',
	'papers.drawn': 'the same',
	'papers.compared': 'the same',
	'papers.original': 'another file that is here is as good to this check',
	'papers.thumbnail': 'the same',
	'papers.scans': 'read from the document',
	'paper_looks.page': 'who accepted what before sending; the record says it once it is sent',
	'paper_looks.account': 'the same',
	'paper_looks.name': 'the same',
	'paper_scans.*': 'what a machine has read; it may be read again',
	'paper_sources.*': 'what a document was made from, kept for those who ask',
	'drafts.*': 'not sent: a draft is what somebody has typed last',
	'templates.*': 'kept for reuse, changed by nobody’s event; its plans are by digest',
	'template_versions.version': 'the same',
	'template_versions.note': 'the same',
	'template_versions.at': 'another moment is as good, where it is one',
	'template_shares.*': 'who may see a template',
	'links.*': 'secrets: only their hashes are kept, and another one opens nothing',
	'saved_answers.*': 'not finished: what somebody has typed last',
	'jobs.*': 'work: done at least once, whatever stands here',
	'mailbox.*': 'the stand-in’s own',
	'phone.*': 'the stand-in’s own',
	'batches.*': 'a sheet and how it is read; its packets have their own records',
	'batch_rows.*': 'the same',
	'batch_documents.*': 'the same',
	'batch_packets.batch': 'which sheet a packet came from',
	'batch_packets.who': 'the same',
	'batch_packets.brought': 'the same',
	'handed_in.*': 'files handed in and perhaps not used',
	'packet_numbers.n': 'a number of a row; the words found by it are compared',
	'keys.name': 'an earlier key is called as it was put away',
	'keys.crl': 'what the authority has revoked: nothing',
	'keys.locked_key': 'locked under PELLUM_KEY; a changed one can’t be unlocked, which the start says',
	'api_keys.hash': 'a secret’s: another one opens nothing',
	'api_keys.made_at': 'another moment is as good; the record has the first',
	'api_keys.used_at': 'when it was used last',
	'api_answers.*': 'answers kept for a day, so that the same asked again is done once',
	'hooks.kinds': 'what it is told of, changed by nobody’s event',
	'hooks.locked': 'locked under PELLUM_KEY; a changed one can’t be unlocked',
	'hooks.locked_before': 'the same',
	'hooks.before_until': 'until when the secret before is good as well',
	'hooks.rests_until': 'how it has answered lately',
	'hooks.made_at': 'another moment is as good; the record has the first',
	'hooks.failures': 'how it has answered lately',
	'hook_deliveries.*': 'what was told; told again where it did not come',
	'calendar_feeds.*': 'a secret address: another one leads nowhere',
	'receiver.*': 'the stand-in’s own',
	'troubles.*': 'work that could not be done; tried again',
	'identity_tries.locked_key': 'locked under PELLUM_KEY; a changed one can’t be unlocked; one that is gone is told',
	'identity_tries.found': 'locked under that; the record has its digest',
	'identity_tries.begun_at': 'another moment is as good; the record has when it was handed in',
	'identity_tries.handed_at': 'the same',
	'identity_tries.person': 'of a try that was not handed in',
	'identity_pictures.measures': 'measured anew where it is judged',
	'identity_pictures.bytes': 'locked, with a seal of its own: a changed one can’t be unlocked',
	'paper_outs.made_from': 'so that the same is not made twice',
	'paper_outs.sheets':
		'worked out from the pages and the plan when they went out; what was judged by it is in the record',
	'paper_outs.papers': 'the same; a return is taken only where they are the packet’s',
	'paper_outs.typed': 'what somebody had typed before they finished; the record has it once they are done',
	'paper_outs.stamped': 'the same as its sheets',
	'paper_outs.at': 'another moment is as good; the record has it',
	'paper_pictures.id': 'a name; the record has the picture’s digest',
	'paper_pictures.name': 'as somebody’s file was called',
	'paper_pictures.media': 'told by its bytes',
	'paper_pictures.laid': 'made from the picture; once taken for the document it is among the blobs',
	'paper_pictures.flat': 'measured anew from the picture',
	'paper_pictures.seen': 'the same; what was in doubt is in the record',
	'paper_pictures.parts': 'the same',
	'paper_pictures.at': 'another moment is as good; the record has it',
	'paper_pictures.handed_at': 'the same',
	'packet_words.*': 'made anew by a job from the events and the documents',
	'paper_texts.*': 'the same',
	'notaries.*': 'the stand-in’s own; what of a commission matters stands in the record of its acts',
	'notary_journal.packet': 'where it came from; the line itself has the packet’s reference',
	'room_words.*': 'what is said in a room, until its packet has ended',
	'room_pages.*': 'which page is looked at now',
	'room_seen.*': 'who is still heard of',
	'identities_known.*': 'who showed it lately, for those who ask again; the record of that packet has it',
	'codes.*': 'one-time codes that run out in minutes',
	'passes.*': 'browsers that have proved who is there, for hours'
};

let t: TestHouse;
let kept: Buffer;
beforeAll(async () => {
	t = await testHouse();
	await paper(t.house);
	await signIn(t.house, 'odile@brindlevale.example', 'long enough for us', FROM);
	await sent(t, [['maren']]);
	await t.runner.drain();
	await signs(t, 'maren@post.example');
	await out(t, [['kit'], ['zoë']], { zoë: { note: 'Bring the viola.' } }, { sending: { wording: true } });
	const who = visitor(t.house, 'kit@post.example');
	ok(openAndConsent(t.house, who, FROM));
	ok(saveAnswers(t.house, who, { 'kit-name': { text: 'Kit' } }, FROM));
	const wish = { paper: 'paper', page: 0, words: 'fourteen days', instead: 'seven days', why: 'soon' };
	ok(askWording(t.house, who, wish, FROM));
	newDraft(t.house, t.odile);
	const ruben = await account(t.house, 'Ruben', 'ruben@x.example', 'preparer');
	const folder = folderNamed(t.house, BY_ITSELF, 'Claims');
	openFolder(t.house, BY_ITSELF, folder, false);
	setMember(t.house, BY_ITSELF, folder, ruben.id, 'judges');
	addHoliday(t.house, '2027-01-01', 'New Year');
	const plan = await realPlan(t.house, [['steward']]);
	const asRoles = { ...plan, people: plan.people.map((p) => ({ ...p, role: 'Steward', name: '', email: '' })) };
	const draft = newTemplate(t.house, t.odile, asRoles, 'Steward handbook');
	const { template } = ok(putInUse(t.house, t.odile, draft.id, draft.revision, 'first'));
	const batch = ok(await newBatch(t.house, t.odile, template, 'stewards.csv', csv(stewards().slice(0, 6))));
	runBatch(t.house, t.odile, batch.id);
	const me = { account: t.odile, address: '' };
	ok(makeKey(t.house, me, 'personnel list', ['look']));
	ok(makeHook(t.house, me, 'https://hooks.example.com/pellum', ['packet.sealed']));
	newFeed(t.house, me);
	const asked = { kinds: ['passport' as const], countries: [], bothSides: false, holder: false };
	await out(t, [['maren']], { maren: { identity: { document: asked, tries: 3 } } });
	const png = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#888' } })
		.png()
		.toBuffer();
	ok(await addIdentityPicture(t.house, visitor(t.house, 'maren@post.example'), 'front', png));
	noteKnown(t.house.db, 'kit@post.example', 'questions', 'Kit', who.packet.packet, t.house.now().toISOString());
	ok(handInIdentity(t.house, visitor(t.house, 'maren@post.example'), 'passport', FROM));
	await t.runner.drain();
	await backOnPaper();
	await beforeNotary(me);
	await keeping(t);
	kept = t.house.db.serialize();
});

/** Somebody has signed in ink, and it waits to be looked at. */
async function backOnPaper(): Promise<void> {
	ok(setPaper(t.house.db, { permitted: true, goesOn: false, post: '' }));
	const packet = await out(t, [['noel']], { noel: { ink: true } });
	ok(await fetchPaper(t.house, visitor(t.house, 'noel@post.example'), 'en', FROM));
	const bringer = ok(bringerOf(visitor(t.house, 'noel@post.example'), FROM));
	const white = await sharp({ create: { width: 400, height: 560, channels: 3, background: '#fff' } })
		.jpeg()
		.toBuffer();
	ok(await addReturned(t.house, bringer, 'page.jpg', white));
	ok(handInReturn(t.house, bringer));
	await idle(t);
	expect(packetState(t.house.db, packet)).toMatchObject({ inks: { noel: { is: 'doubts' } } });
}

/** Two packets before a notary: one refused, which the journal has, one in its session. */
async function beforeNotary(me: Doer): Promise<void> {
	const commission = ok(keepNotary(t.house, me, COMMISSION, null)).id;
	await drawSeal(t.house, commission);
	const people = {
		nora: {
			name: COMMISSION.name,
			email: COMMISSION.email,
			notary: { act: 'witnessed signature' as const, commission }
		}
	};
	for (const refused of [true, false]) {
		await out(t, [['kit', 'nora:notarises']], people);
		const nora = () => visitor(t.house, COMMISSION.email);
		ok(openAndConsent(t.house, nora(), FROM));
		await doInRoom(t.house, nora(), { do: 'enter' }, FROM);
		await doInRoom(t.house, nora(), { do: 'say', text: 'Good morning' }, FROM);
		await doInRoom(t.house, nora(), { do: 'show', paper: 'paper', page: 1 }, FROM);
		if (refused) await doInRoom(t.house, nora(), { do: 'refuse', why: 'Nobody came.' }, FROM);
		await idle(t);
	}
}

/** One that was disposed of, one of which somebody has said so first, one that is held. */
async function keeping(t: TestHouse): Promise<void> {
	const me = { account: t.odile, address: '' };
	const packets: string[] = [];
	for (let i = 0; i < 3; i++) {
		packets.push(await out(t, [['maren']]));
		await signs(t, 'maren@post.example');
	}
	await idle(t);
	ok(await dispose(t.house, me, [packets[0]!], 'Over.'));
	setKeeping(t.house.db, { fileNames: '{reference}', binDays: 30, two: true });
	ok(await dispose(t.house, me, [packets[1]!], 'Over.'));
	ok(setHold(t.house, me, { name: 'Claim', why: 'asked', of: 'packets', what: '', packets: [packets[2]!] }));
	const rule = { by: 'type', of: 'X', years: 1, from: 'end', key: '', yearEnd: true, then: 'review' };
	ok(keepRule(t.house, me, { name: 'X', ...rule }));
	await idle(t);
	witnessed(t.house.db, '2026-11-24', JSON.stringify({ size: 1, root: 'x' }), '2026-11-24T00:00:00.000Z');
}

const opened = (): Db => {
	const db = new Database(kept);
	db.pragma('foreign_keys = OFF');
	db.pragma('ignore_check_constraints = ON');
	for (const { name } of db
		.prepare<[], { name: string }>("SELECT name FROM sqlite_master WHERE type = 'trigger'")
		.all())
		db.exec(`DROP TRIGGER ${name}`);
	return db;
};

it('a sound database has no faults', () => expect(checkData(t.house.db).faults).toEqual([]));

it('each column of each table changed in turn is found, or may differ for a reason', () => {
	const tables = t.house.db
		.prepare<[], { name: string }>(
			"SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'packets_text_%' AND name NOT LIKE 'packets_full%' AND name NOT LIKE 'pages_text%' AND name NOT LIKE 'sqlite_%'"
		)
		.all()
		.map(({ name }) => name);
	const unseen: string[] = [];
	const used = new Set<string>();
	let changed = 0;
	for (const table of tables)
		for (const { name: column, type } of t.house.db.pragma(`table_info(${table})`) as {
			name: string;
			type: string;
		}[]) {
			const db = opened();
			const where = `WHERE ${column} IS (SELECT ${column} FROM ${table} ORDER BY ${column} IS NULL LIMIT 1)`;
			const [value] = db
				.prepare<[], string | number | Buffer | null>(`SELECT ${column} FROM ${table} LIMIT 1`)
				.pluck()
				.all();
			if (value === undefined) continue;
			const other =
				type === 'BLOB'
					? Buffer.from('other')
					: type === 'INTEGER' || type === 'REAL'
						? Number(value ?? 0) + 1000
						: `${typeof value === 'string' ? value.slice(0, -1) : ''}~`;
			const sql = `UPDATE OR REPLACE ${table} SET ${column} = ? ${table === 'packets_text' ? 'WHERE rowid = 1' : where}`;
			expect(db.prepare(sql).run(other).changes, `${table}.${column}`).toBeGreaterThan(0);
			changed += 1;
			let found: number;
			try {
				found = checkData(db).faults.length;
			} catch (error) {
				throw new Error(`${table}.${column}: ${String(error)}`);
			}
			db.close();
			const reason = [`${table}.${column}`, `${table}.*`].find((key) => key in MAY_DIFFER);
			if (reason) used.add(reason);
			else if (found === 0) unseen.push(`${table}.${column}`);
		}
	expect(changed).toBeGreaterThan(120);
	expect(unseen).toEqual([]);
	// tables that are empty here (codes, passes …) have their reason ready
	const idle = Object.keys(MAY_DIFFER).filter(
		(key) =>
			!used.has(key) &&
			!/^(codes|passes|troubles|phone|paper_looks|paper_scans|paper_sources|template_shares|saved_texts|handed_in|account_links|passkeys|recovery_codes|list_settings|api_answers|hook_deliveries|receiver|batch_documents|morning_letters|field_counts|field_last|pace_behind)\./.test(
				key
			)
	);
	expect(idle).toEqual([]);
});

it('each plan changed is found, also one that nothing names any more', () => {
	const plans = t.house.db.prepare<[], string>('SELECT digest FROM plans').pluck().all();
	expect(plans.length).toBeGreaterThan(5);
	for (const digest of plans) {
		const db = opened();
		db.prepare("UPDATE plans SET json = replace(json, 'days', 'dayz') WHERE digest = ?").run(digest);
		expect(checkData(db).faults, digest).not.toEqual([]);
		db.prepare(
			"UPDATE plans SET json = replace(json, 'dayz', 'days'), digest = 'f' || substr(digest, 2, 62) || '~' WHERE digest = ?"
		).run(digest);
		expect(checkData(db).faults, digest).not.toEqual([]);
		db.close();
	}
});

it.each<[string, string]>([
	['a row of people gone', "DELETE FROM packet_people WHERE person = 'zoë'"],
	[
		'a row of people more',
		"INSERT INTO packet_people (packet, person, name, email, standing) SELECT id, 'x', 'X', '', 'waiting' FROM packets LIMIT 1"
	],
	['a node of the tree gone', 'DELETE FROM tree_nodes WHERE level = 1 AND idx = 0'],
	['the words of a packet gone', 'DELETE FROM packets_text WHERE rowid = 1'],
	['a packet gone from the lists', 'DELETE FROM packets WHERE rowid = 1'],
	[
		'all events of a packet gone',
		'DELETE FROM events WHERE packet = (SELECT packet FROM events ORDER BY seq DESC LIMIT 1)'
	],
	['an event’s number raised', 'UPDATE events SET n = n + 100 WHERE seq = (SELECT max(seq) FROM events)'],
	['a plan gone', 'DELETE FROM plans WHERE rowid = 1'],
	['a document gone', "DELETE FROM blobs WHERE media = 'application/pdf'"],
	['a count gone', 'DELETE FROM packet_counts']
])('%s is found', (_, sql) => {
	const db = opened();
	expect(db.prepare(sql).run().changes).toBeGreaterThan(0);
	expect(checkData(db).faults).not.toEqual([]);
	db.close();
});
