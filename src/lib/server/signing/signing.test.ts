import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import {
	FROM,
	answersOf,
	linkTo,
	mails,
	ok,
	out,
	signs,
	testHouse,
	visitor,
	type TestHouse
} from '../../../../e2e/kit/house';
import { isRefusal } from '../../core/refusal';
import { closePool } from '../../press';
import { checkData } from '../check';
import { phoneMessages, setRefusedNumbers } from '../mail/phone';
import { packetState } from '../packets/act';
import { hashedCode } from '../packets/codes';
import { eventsOf } from '../packets/log';
import { correctPhone, newVersion, nudge, nudgeAll, answerWording, takeLink } from '../packets/office';
import { judgeHeld } from '../identity';
import {
	addFile,
	askWording,
	decline,
	enterCode,
	finish,
	handDevice,
	handOver,
	lookAtCopy,
	openAndConsent,
	pagesSeen,
	saveAnswers,
	sendCode,
	signingView,
	visit
} from './index';
import FIRST from '../../words/consents/1.json';
import { consentLines } from '../../words/consent';
import { sha256Text } from '../ids';
import { act } from '../packets/act';
import { consentDigest } from './consenting';
import { CODES_ALLOWED } from './identity';

let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});
afterAll(() => closePool());

const NUMBER = '+44 7700 900123';
const mailOf = (person: string) => `${person}@post.example`;

const types = (packet: string) => eventsOf(t.house.db, packet).map((e) => e.type);
const state = (packet: string) => {
	const now = packetState(t.house.db, packet);
	if (now.status === 'none') throw new Error('no packet');
	return now;
};

describe('a code', () => {
	it('by mail: asked before anything is shown, good once, for ten minutes, and nowhere to be read', async () => {
		const packet = await out(t, [['maren'], ['tamsin']], { maren: { check: { by: 'mail' } } });
		const link = linkTo(t.house, mailOf('maren'));
		const maren = () => ok(visit(t.house, link));
		const view = signingView(t.house, maren());
		expect(view).toMatchObject({ state: 'code', by: 'mail', to: 'm••••@post.example', left: CODES_ALLOWED });
		for (const part of ['papers', 'fields', 'answers', 'route']) expect(view).not.toHaveProperty(part);
		expect(openAndConsent(t.house, maren(), FROM)).not.toBeNull();
		ok(sendCode(t.house, maren()));
		ok(sendCode(t.house, maren()));
		await t.runner.drain();
		// a second wish within the minute is the same one
		expect(mails(t.house, mailOf('maren'))).toHaveLength(2);
		const code = mails(t.house, mailOf('maren'))
			.at(-1)!
			.text.match(/\b\d{6}\b/)![0];
		for (const table of ['jobs', 'codes', 'events'])
			expect(JSON.stringify(t.house.db.prepare(`SELECT * FROM ${table}`).all())).not.toContain(code);
		t.clock.now += 11 * 60_000;
		expect(enterCode(t.house, maren(), code, FROM)).toMatchObject({ code: 'code-old' });
		ok(sendCode(t.house, maren()));
		await t.runner.drain();
		const second = mails(t.house, mailOf('maren'))
			.at(-1)!
			.text.match(/\b\d{6}\b/)![0];
		const { pass } = ok(enterCode(t.house, maren(), second, FROM));
		expect(enterCode(t.house, maren(), second, FROM)).toMatchObject({ code: 'code-old' });
		expect(signingView(t.house, ok(visit(t.house, link, pass)))).toMatchObject({ state: 'turn' });
		// another browser has proved nothing
		expect(signingView(t.house, maren())).toMatchObject({ state: 'code' });
		expect(types(packet)).toContain('CodeRight');
	});
	it('opens nothing without it: no answer, file, finish, hand-over or decline', async () => {
		await out(t, [['maren']], { maren: { check: { by: 'mail' } } }, { sending: { handOver: true, wording: true } });
		const maren = visitor(t.house, mailOf('maren'));
		const to = { name: 'Kit', email: 'kit@post.example', why: 'away' };
		const wish = { paper: 'paper', page: 0, words: 'a', instead: 'b', why: '' };
		for (const no of [
			openAndConsent(t.house, maren, FROM),
			saveAnswers(t.house, maren, {}, FROM),
			finish(t.house, maren, {}, FROM),
			handOver(t.house, maren, to, FROM),
			decline(t.house, maren, 'no', FROM),
			askWording(t.house, maren, wish, FROM),
			await addFile(t.house, maren, 'x', 'x.pdf', new Uint8Array(3))
		])
			expect(no).toMatchObject({ code: 'not-proved' });
	});
	it('of access is told another way; wrong ones are slowed and hold the packet, the sender releases it', async () => {
		const hash = hashedCode(t.house, 'Blue Heron 7');
		const packet = await out(t, [['maren']], { maren: { check: { by: 'code', hash } } });
		expect(JSON.stringify(t.house.db.prepare('SELECT * FROM blobs WHERE media LIKE ?').all('%json%'))).not.toContain(
			'Heron'
		);
		const maren = () => visitor(t.house, mailOf('maren'));
		expect(enterCode(t.house, maren(), 'green heron', FROM)).toMatchObject({ code: 'code-wrong', values: { left: 4 } });
		expect(enterCode(t.house, maren(), 'BLUE-HERON7', FROM)).toMatchObject({ code: 'code-too-soon' });
		for (let i = 0; i < CODES_ALLOWED - 2; i++) {
			t.clock.now += 120_000;
			expect(enterCode(t.house, maren(), `guess ${i}`, FROM)).toMatchObject({ code: 'code-wrong' });
		}
		t.clock.now += 120_000;
		expect(enterCode(t.house, maren(), 'last guess', FROM)).toMatchObject({ code: 'held' });
		await t.runner.drain();
		expect(state(packet).status).toBe('held');
		expect(mails(t.house, t.odile.email).at(-1)!.subject).toContain('Held');
		expect(signingView(t.house, maren())).toMatchObject({ state: 'held' });
		ok(judgeHeld(t.house, t.odile, packet, 'maren', 'another try', { note: 'She called' }));
		await t.runner.drain();
		const { pass } = ok(enterCode(t.house, maren(), 'bluE heroN-7', FROM));
		expect(visit(t.house, linkTo(t.house, mailOf('maren')), pass)).toMatchObject({ proved: true });
		expect(checkData(t.house.db).faults).toEqual([]);
	});
	it('by text goes to the Phone', async () => {
		await out(t, [['maren']], { maren: { check: { by: 'text' }, phone: NUMBER } });
		ok(sendCode(t.house, visitor(t.house, mailOf('maren'))));
		await t.runner.drain();
		expect(phoneMessages(t.house, NUMBER)[0]!.text).toMatch(/: \d{6}$/);
	});
});

describe('text messages', () => {
	it('go beside a mail or alone, come back, and are corrected', async () => {
		setRefusedNumbers(t.house, [NUMBER]);
		const packet = await out(t, [['maren']], { maren: { deliver: 'text', phone: NUMBER, email: '' } });
		expect(mails(t.house)).toEqual([]);
		expect(state(packet).people['maren']).toMatchObject({ is: 'unreachable' });
		ok(correctPhone(t.house, t.odile, packet, 'maren', '+44 7700 900456'));
		await t.runner.drain();
		const [message] = phoneMessages(t.house, '+447700900456');
		const token = message!.text.match(/\/s\/([\w-]{43})/)![1]!;
		expect(signingView(t.house, ok(visit(t.house, token)))).toMatchObject({ state: 'turn' });
	});
});

describe('a link that the office hands on', () => {
	it('is each person’s own, also that of somebody who only gets a copy, and looking at it is in the record', async () => {
		const packet = await out(t, [['maren'], ['ruben:gets a copy']], {
			maren: { deliver: 'link', email: '' },
			ruben: { deliver: 'link', email: '' }
		});
		expect(mails(t.house)).toEqual([]);
		const token = ok(takeLink(t.house, t.odile, packet, 'maren'))
			.link.split('/')
			.pop()!;
		const maren = ok(visit(t.house, token));
		ok(openAndConsent(t.house, maren, FROM));
		ok(finish(t.house, maren, answersOf(maren.packet.plan.fields, 'maren'), FROM));
		await t.runner.drain();
		const copy = ok(
			visit(
				t.house,
				ok(takeLink(t.house, t.odile, packet, 'ruben'))
					.link.split('/')
					.pop()!
			)
		);
		lookAtCopy(t.house, copy, FROM);
		lookAtCopy(t.house, copy, FROM);
		expect(types(packet).filter((type) => type === 'CopyLookedAt' || type === 'LinkTaken')).toEqual([
			'LinkTaken',
			'LinkTaken',
			'CopyLookedAt'
		]);
	});
});

describe('handing over', () => {
	it('gives all that is unfinished to somebody else: the old link dies and says to whom, the sender is told', async () => {
		const packet = await out(t, [['maren'], ['tamsin']], {}, { sending: { handOver: true } });
		const link = linkTo(t.house, mailOf('maren'));
		const maren = ok(visit(t.house, link));
		ok(saveAnswers(t.house, maren, { 'maren-note': { text: 'mine' } }, FROM));
		expect(handOver(t.house, maren, { name: 'Kit', email: mailOf('maren'), why: 'x' }, FROM)).toMatchObject({
			code: 'handed-to-oneself'
		});
		ok(handOver(t.house, maren, { name: 'Kit Bell', email: mailOf('kit'), why: 'On tour' }, FROM));
		await t.runner.drain();
		expect(visit(t.house, link)).toMatchObject({ code: 'handed-over', values: { name: 'Kit Bell' } });
		const kit = visitor(t.house, mailOf('kit'));
		expect(signingView(t.house, kit)).toMatchObject({ state: 'turn', me: { name: 'Kit Bell' }, saved: {} });
		expect(mails(t.house, t.odile.email).at(-1)!.text).toContain('On tour');
		await signs(t, mailOf('kit'));
		expect(state(packet).people['tamsin']).toMatchObject({ is: 'notified' });
	});
});

describe('a host', () => {
	it('hands the device over, and says afterwards who it was', async () => {
		const packet = await out(t, [['tamsin:hosts', 'maren'], ['odile']], {
			maren: { deliver: 'in person', hostedBy: 'tamsin', email: '' }
		});
		expect(mails(t.house).map((m) => m.recipient)).toEqual([mailOf('tamsin')]);
		const host = visitor(t.house, mailOf('tamsin'));
		ok(openAndConsent(t.house, host, FROM));
		expect(finish(t.house, host, {}, FROM, { guests: { maren: 'I know her' } })).toMatchObject({
			code: 'guest-not-done'
		});
		const { token } = ok(handDevice(t.house, host, 'maren', FROM));
		const guest = ok(visit(t.house, token));
		expect(signingView(t.house, guest)).toMatchObject({ state: 'turn', host: 'Tamsin' });
		ok(openAndConsent(t.house, guest, FROM));
		ok(finish(t.house, guest, answersOf(guest.packet.plan.fields, 'maren'), FROM));
		expect(finish(t.house, visitor(t.house, mailOf('tamsin')), {}, FROM)).toMatchObject({ code: 'guest-unconfirmed' });
		ok(finish(t.house, visitor(t.house, mailOf('tamsin')), {}, FROM, { guests: { maren: 'I know her' } }));
		expect(state(packet).people).toMatchObject({ maren: { is: 'done' }, odile: { is: 'notified' } });
		t.clock.now += 3 * 3_600_000;
		expect(visit(t.house, token)).toMatchObject({ code: 'link-old' });
	});
});

describe('another wording', () => {
	it('reaches the sender, is answered in the person’s own language, or becomes a new version that links to it', async () => {
		const packet = await out(t, [['maren']], { maren: { locale: 'de-DE' } }, { sending: { wording: true } });
		const maren = () => visitor(t.house, mailOf('maren'));
		ok(openAndConsent(t.house, maren(), FROM, 'de'));
		const wish = { paper: 'paper', page: 0, words: 'two nights', instead: 'three nights', why: 'the tour is longer' };
		ok(askWording(t.house, maren(), wish, FROM));
		await t.runner.drain();
		expect(mails(t.house, t.odile.email).at(-1)!.text).toContain('three nights');
		const [asked] = state(packet).wordings;
		ok(answerWording(t.house, t.odile, packet, asked!.id, 'It stays two.'));
		await t.runner.drain();
		expect(mails(t.house, mailOf('maren')).at(-1)!.text).toContain('antwortet auf Ihren Wunsch');
		const draft = ok(newVersion(t.house, t.odile, packet, 'A new wording'));
		expect(draft.plan.follows).toBe(packet);
		expect(state(packet).status).toBe('withdrawn');
	});
});

describe('languages', () => {
	it('of a person hold for the page, the letter and the consent that the record names', async () => {
		const packet = await out(t, [['maren']], { maren: { locale: 'de-CH' } });
		expect(mails(t.house)[0]).toMatchObject({ subject: 'Zu unterschreiben: Guest musician engagement' });
		expect(mails(t.house)[0]!.text).toContain('Frist: 4. Dezember 2026.');
		const maren = visitor(t.house, mailOf('maren'));
		ok(openAndConsent(t.house, maren, FROM, 'de'));
		const given = eventsOf(t.house.db, packet).find((e) => e.type === 'ConsentGiven');
		expect(given).toMatchObject({ text: consentDigest('de', 'signs') });
		expect(consentDigest('de', 'signs')).toMatch(/^de-2 [0-9a-f]{64}$/);
		expect(
			new Set([consentDigest('de', 'signs'), consentDigest('fr', 'signs'), consentDigest('de', 'approves')]).size
		).toBe(3);
	});
	it('of consent: whoever agreed to an older wording agrees anew, and both stand in the record', async () => {
		const packet = await out(t, [['maren']], { maren: { duty: 'approves' } });
		const maren = visitor(t.house, mailOf('maren'));
		const by = { kind: 'person', person: maren.person.id } as const;
		const old = `en-1 ${sha256Text(FIRST.en.join('\n'))}`;
		ok(act(t.house, packet, by, { do: 'openPaper', person: maren.person.id, from: FROM }));
		ok(act(t.house, packet, by, { do: 'consent', person: maren.person.id, text: old, from: FROM }));
		expect(signingView(t.house, visitor(t.house, mailOf('maren')), 'en')).toMatchObject({
			state: 'turn',
			consented: false
		});
		ok(openAndConsent(t.house, maren, FROM));
		ok(openAndConsent(t.house, maren, FROM));
		expect(signingView(t.house, visitor(t.house, mailOf('maren')), 'en')).toMatchObject({ consented: true });
		const given = eventsOf(t.house.db, packet).flatMap((e) => (e.type === 'ConsentGiven' ? [e.text] : []));
		expect(given).toEqual([old, consentDigest('en', 'approves')]);
		// nobody who only approves agrees to sign
		expect(consentLines('en', 'approves').join(' ')).not.toMatch(/sign/);
	});
});

describe('what is entered', () => {
	it('is in the record by which answers were changed, at most every ten minutes, never by what they say', async () => {
		const packet = await out(t, [['maren']]);
		const maren = visitor(t.house, mailOf('maren'));
		ok(openAndConsent(t.house, maren, FROM));
		for (const text of ['s', 'se', 'secret']) ok(saveAnswers(t.house, maren, { 'maren-note': { text } }, FROM));
		const kept = () => eventsOf(t.house.db, packet).filter((e) => e.type === 'AnswersKept');
		expect(kept()).toHaveLength(1);
		expect(JSON.stringify(kept())).not.toContain('se');
		t.clock.now += 11 * 60_000;
		ok(saveAnswers(t.house, maren, { 'maren-note': { text: 'other' } }, FROM));
		expect(kept()).toHaveLength(2);
	});
	it('may be long, but not endless, and the sentence says how long', async () => {
		await out(t, [['maren']]);
		const maren = visitor(t.house, mailOf('maren'));
		ok(openAndConsent(t.house, maren, FROM));
		const given = { ...answersOf(maren.packet.plan.fields, 'maren'), 'maren-note': { text: 'x'.repeat(10_000) } };
		const no = finish(t.house, maren, given, FROM);
		expect(isRefusal(no) && no.at).toBe('maren-note');
		expect(isRefusal(no) && no.say).toContain('10000');
	});
	it('of pages seen is kept only where the organisation wants it', async () => {
		const quiet = await out(t, [['maren']]);
		const maren = visitor(t.house, mailOf('maren'));
		ok(openAndConsent(t.house, maren, FROM));
		pagesSeen(t.house, maren, [{ paper: 'paper', page: 0, seconds: 5 }], FROM);
		expect(types(quiet)).not.toContain('PagesSeen');
		const watched = await out(t, [['kit']], {}, { sending: { seenPages: true } });
		const kit = visitor(t.house, mailOf('kit'));
		ok(openAndConsent(t.house, kit, FROM));
		pagesSeen(
			t.house,
			kit,
			[
				{ paper: 'paper', page: 1, seconds: 7 },
				{ paper: 'paper', page: 99, seconds: 7 }
			],
			FROM
		);
		expect(eventsOf(t.house.db, watched).find((e) => e.type === 'PagesSeen')).toMatchObject({
			pages: [{ page: 1, seconds: 7 }]
		});
	});
});

describe('a nudge', () => {
	it('goes to one, or to all it waits for, once an hour each', async () => {
		const packet = await out(t, [['maren', 'kit'], ['tamsin']]);
		ok(nudge(t.house, t.odile, packet, 'maren'));
		expect(ok(nudgeAll(t.house, t.odile, packet))).toEqual({ nudged: 1, lately: 1 });
		expect(nudgeAll(t.house, t.odile, packet)).toMatchObject({ code: 'nudged-lately' });
		expect(nudge(t.house, t.odile, packet, 'tamsin')).toMatchObject({ code: 'nobody-waits' });
		await t.runner.drain();
		expect(mails(t.house, mailOf('maren')).map((m) => m.subject)).toEqual([
			'To sign: Guest musician engagement',
			'Still waiting for you: Guest musician engagement'
		]);
	});
});

describe('many at once', () => {
	it('fifty people sign side by side: each once, the next stop opens once, all of it sound', async () => {
		const people = Array.from({ length: 50 }, (_, i) => `p${i}`);
		const packet = await out(t, [people, ['tamsin']]);
		const links = people.map((p) => linkTo(t.house, mailOf(p)));
		await Promise.all(
			links.flatMap((link, i) =>
				// two tabs each
				[0, 1].map(async () => {
					const who = ok(visit(t.house, link));
					await Promise.resolve();
					ok(openAndConsent(t.house, who, FROM));
					await Promise.resolve();
					ok(finish(t.house, who, answersOf(who.packet.plan.fields, people[i]!), FROM));
				})
			)
		);
		const happened = types(packet);
		expect(happened.filter((type) => type === 'PersonFinished')).toHaveLength(50);
		expect(happened.filter((type) => type === 'StopOpened')).toHaveLength(2);
		await t.runner.drain();
		expect(mails(t.house, mailOf('tamsin'))).toHaveLength(1);
		expect(checkData(t.house.db).faults).toEqual([]);
	});
});
