import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import {
	answersOf,
	FROM,
	idle,
	linkTo,
	mails,
	ok,
	out,
	testHouse,
	visitor,
	type TestHouse
} from '../../../../e2e/kit/house';
import { COMMISSION } from '../../../../e2e/kit/commission';
import { hoursInWords, type ActKind } from '../../core/notary';
import { decide, preflight, type PlanPerson, type SentPacket } from '../../core/packet';
import { isRefusal, type Refusal } from '../../core/refusal';
import { closePool, organisationIn, toPem, verifySealed } from '../../press';
import { openPdf } from '../../press/pdfium';
import { checkData } from '../check';
import { rootsOf } from '../keys';
import { packetState } from '../packets/act';
import { copyFile } from '../packets/copies';
import { eventsOf } from '../packets/log';
import { packetView } from '../packets/packet-view';
import { correctAddress, withdraw } from '../packets/office';
import { sendPlan } from '../packets/sending';
import { decline, finish, handDevice, handOver, openAndConsent, signingView, visit, type Visitor } from '../signing';
import {
	appoint,
	appointmentFile,
	doInRoom,
	drawSeal,
	endNotary,
	journalAsCsv,
	journalAsPdf,
	journalOf,
	keepNotary,
	letPlay,
	roomView,
	sessionsOf,
	standInNotaries,
	type RoomDeed
} from '.';

let t: TestHouse;
let isolde: string;
const by = () => ({ account: t.odile, address: '' });

beforeEach(async () => {
	t = await testHouse();
	isolde = ok(keepNotary(t.house, by(), COMMISSION, null)).id;
	await drawSeal(t.house, isolde);
});
afterAll(closePool);

const ADDRESS: Record<string, string> = { isolde: COMMISSION.email };
const at = (id: string): Visitor => visitor(t.house, ADDRESS[id] ?? `${id}@post.example`);
const notaryOf = (act: ActKind, more: Partial<PlanPerson> = {}): Record<string, Partial<PlanPerson>> => ({
	isolde: { name: COMMISSION.name, email: COMMISSION.email, notary: { act, commission: isolde }, ...more }
});
/** A packet with these people before the notary, sent; its id. */
const before = (people: string[], act: ActKind, more: Record<string, Partial<PlanPerson>> = {}) =>
	out(t, [[...people, 'isolde:notarises']], { ...notaryOf(act), ...more });
const deed = (who: string, what: RoomDeed) => doInRoom(t.house, at(who), what, FROM);
const does = async (who: string, what: RoomDeed) => {
	const done = await deed(who, what);
	if (done && isRefusal(done)) throw new Error(`${done.code}: ${done.say}`);
};
const code = async (done: Promise<object | null> | object | null) => {
	const was = await done;
	return was && isRefusal(was as object) ? (was as Refusal).code : 'done';
};
const agrees = (who: string) => ok(openAndConsent(t.house, at(who), FROM));
const enters = async (...who: string[]) => {
	for (const one of who) {
		agrees(one);
		await does(one, { do: 'enter' });
	}
};
const signsNow = (who: string): SentPacket | Refusal => {
	const visitor = at(who);
	return finish(t.house, visitor, answersOf(visitor.packet.plan.fields, who), FROM);
};
const state = (packet: string): SentPacket => {
	const found = packetState(t.house.db, packet);
	if (found.status === 'none') throw new Error('no such packet');
	return found;
};
const types = (packet: string) => eventsOf(t.house.db, packet).map((event) => event.type);
const confirm = (who: string): RoomDeed => ({ do: 'confirm', who, how: 'showed an identity document' });
/** Everything up to where the act can be drawn up. */
async function signed(...people: string[]): Promise<void> {
	await enters('isolde', ...people);
	await does('isolde', { do: 'begin' });
	for (const one of people) {
		await does('isolde', confirm(one));
		if (roomView(t.house, at(one)) as object) await deed(one, { do: 'oath' });
		await does('isolde', { do: 'turn', who: one });
		ok(signsNow(one));
	}
}
const draws = (text = 'Sworn before me.'): Promise<void> => does('isolde', { do: 'draw', text, place: null });

describe('a sworn statement before a notary', () => {
	it('goes from the appointment to a sealed copy with both signatures, a journal and a record', async () => {
		const packet = await before(['maren'], 'sworn statement');
		ok(appoint(t.house, t.odile, packet, '2026-11-25T10:00:00Z', 30));
		await idle(t);
		const letter = mails(t.house, 'maren@post.example').at(-1)!;
		expect(letter.subject).toContain('Appointment before the notary');
		expect(letter.text).toContain('Isolde Marchbank');
		expect(letter.text).toContain('£40');
		expect(letter.attachments).toContain('appointment.ics');
		expect(mails(t.house, COMMISSION.email).at(-1)!.attachments).toContain('appointment.ics');
		const ics = appointmentFile(t.house, state(packet), 'http://127.0.0.1:1/s/x/room', 'en')!;
		expect(ics).toContain('DTSTART:20261125T100000Z');
		expect(ics).toContain('DTEND:20261125T103000Z');

		agrees('maren');
		expect(await code(signsNow('maren'))).toBe('not-before-notary');
		expect(signingView(t.house, at('maren')).notary).toMatchObject({ may: false, fee: '£40', minutes: 30 });
		t.clock.now = Date.parse('2026-11-25T10:01:00Z');
		await enters('maren');
		expect(roomView(t.house, at('maren'))).toMatchObject({ present: true, running: false, is: 'open' });
		await enters('isolde');
		await does('isolde', { do: 'begin' });
		expect(await code(deed('isolde', { do: 'turn', who: 'maren' }))).toBe('confirm-first');
		expect(await code(deed('maren', { do: 'oath' }))).toBe('not-confirmed');
		await does('isolde', confirm('maren'));
		expect(await code(deed('isolde', { do: 'turn', who: 'maren' }))).toBe('not-sworn');
		await does('maren', { do: 'oath' });
		expect(await code(deed('isolde', { do: 'draw', text: 'x', place: null }))).toBe('not-all-signed');
		await does('isolde', { do: 'turn', who: 'maren' });
		expect(signingView(t.house, at('maren')).notary).toMatchObject({ may: true });
		ok(signsNow('maren'));
		const desk = ok(roomView(t.house, at('isolde')));
		expect(desk.toDraw).toContain('Maren (showed an identity document) came before me, took the oath');
		expect(desk.toDraw).toContain('Commission NP 4471, ends 30 June 2027');
		await draws(desk.toDraw);
		expect(state(packet).plan.papers[0]!.pages).toHaveLength(3);
		expect(await code(deed('isolde', { do: 'finish' }))).toBe('not-approved');
		await does('maren', { do: 'approve' });
		await does('isolde', { do: 'finish' });
		await idle(t);

		const done = state(packet);
		expect(done.status).toBe('completed');
		const copy = copyFile(t.house, done, 'paper')!;
		const verdict = await verifySealed(
			copy.bytes,
			rootsOf(t.house.db).map((root) => root.pem)
		);
		expect(verdict.checks.filter((one) => !one.ok)).toEqual([]);
		expect(verdict).toMatchObject({ verdict: 'genuine', notary: { name: 'Isolde Marchbank' } });
		const pdf = await openPdf(copy.bytes);
		if (typeof pdf === 'string') throw new Error(pdf);
		expect(
			pdf
				.words(2)
				.map((word) => word.text)
				.join(' ')
		).toContain('took the oath');
		pdf.close();
		const evidence = await openPdf(copyFile(t.house, done, 'evidence')!.bytes);
		if (typeof evidence === 'string') throw new Error(evidence);
		const told = Array.from({ length: evidence.pages }, (_, n) => evidence.words(n).map((w) => w.text))
			.flat()
			.join(' ');
		evidence.close();
		expect(told).toContain('began the session. Fee: £40.');
		expect(told).toContain('Maren signed, before Isolde Marchbank.');
		expect(told).toContain('Maren approved the result.');
		expect(journalOf(t.house.db, isolde)).toMatchObject([
			{ n: 1, act: 'sworn statement', outcome: 'done', fee: '£40', people: [{ name: 'Maren' }] }
		]);
		expect(packetView(t.house, packet)).toMatchObject({
			session: { people: [{ name: 'Maren', stage: 'sealed' }, { stage: 'sealed' }] }
		});
		expect(checkData(t.house.db).faults).toEqual([]);
	});

	it('each comes in their own session; another day it goes on, and nothing is done twice', async () => {
		const packet = await before(['maren', 'ruben'], 'sworn statement');
		await signed('maren');
		expect(await code(deed('isolde', confirm('ruben')))).toBe('not-there');
		await does('isolde', { do: 'pause', why: 'Ruben did not come' });
		expect(await code(deed('isolde', { do: 'turn', who: 'ruben' }))).toBe('not-begun');
		await does('isolde', { do: 'leave' });
		t.clock.now += 86_400_000;
		await enters('ruben');
		expect(roomView(t.house, at('ruben'))).toMatchObject({ begun: true, running: false });
		expect(ok(roomView(t.house, at('ruben'))).words.map((one) => one.said)).toEqual(['Ruben did not come']);
		await does('isolde', { do: 'enter' });
		await does('isolde', { do: 'begin' });
		expect(state(packet).session.confirmed).toHaveProperty('maren');
		await does('isolde', confirm('ruben'));
		await does('ruben', { do: 'oath' });
		await does('isolde', { do: 'turn', who: 'ruben' });
		ok(signsNow('ruben'));
		await draws();
		// Maren left long ago, and approves from where she is
		await does('maren', { do: 'approve' });
		await does('ruben', { do: 'approve' });
		await does('isolde', { do: 'finish' });
		expect(state(packet).status).toBe('completed');
		expect(types(packet).filter((type) => type === 'OathTaken')).toHaveLength(2);
	});

	it('somebody whose connection is lost is not there any more, and comes back to where they were', async () => {
		const packet = await before(['maren'], 'sworn statement');
		await enters('isolde', 'maren');
		roomView(t.house, at('maren'));
		roomView(t.house, at('isolde'));
		await does('isolde', { do: 'begin' });
		await does('isolde', confirm('maren'));
		await does('maren', { do: 'oath' });
		await does('isolde', { do: 'turn', who: 'maren' });
		t.clock.now += 80_000;
		// her own page has asked meanwhile, on which she signs
		roomView(t.house, at('maren'));
		t.clock.now += 80_000;
		expect(ok(roomView(t.house, at('isolde'))).turn).toBe('maren');
		t.clock.now += 80_000;
		const desk = ok(roomView(t.house, at('isolde')));
		expect(desk.people.find((one) => one.id === 'maren')).toMatchObject({ there: false, sworn: true });
		expect(desk.turn).toBe(null);
		expect(await code(signsNow('maren'))).toBe('not-before-notary');
		await does('maren', { do: 'enter' });
		await does('isolde', { do: 'turn', who: 'maren' });
		ok(signsNow('maren'));
		expect(types(packet)).toContain('RoomLeft');
	});

	it('what is wrong is said before anything is final: drawn up anew on the same page, or signed once more', async () => {
		const packet = await before(['maren'], 'sworn statement');
		await signed('maren');
		await draws('At Brindelvale.');
		expect(await code(deed('maren', { do: 'doubt', why: ' ' }))).toBe('why-missing');
		await does('maren', { do: 'doubt', why: 'It is Brindlevale.' });
		expect(await code(deed('isolde', { do: 'finish' }))).toBe('result-doubted');
		await draws('At Brindlevale.');
		expect(state(packet).plan.papers[0]!.pages).toHaveLength(3);
		expect(state(packet).plan.fields.filter((one) => one.id === 'notary-act')).toHaveLength(1);
		await does('maren', { do: 'approve' });
		await does('isolde', { do: 'again', who: 'maren', why: 'The name is misspelt.' });
		expect(state(packet).session).toMatchObject({ drawn: null, approved: [] });
		const turn = signingView(t.house, at('maren'));
		expect(turn.state).toBe('turn');
		// what she had entered is still there
		expect(turn.state === 'turn' && turn.saved['maren-name']).toEqual({ text: 'maren' });
		agrees('maren');
		await does('isolde', { do: 'turn', who: 'maren' });
		ok(signsNow('maren'));
		await draws('At Brindlevale.');
		await does('maren', { do: 'approve' });
		await does('isolde', { do: 'finish' });
		await idle(t);
		expect(state(packet).evidence).not.toBe(null);
		expect(checkData(t.house.db).faults).toEqual([]);
	});

	it('the notary places what is missing, and it has to be answered', async () => {
		const packet = await before(['maren'], 'witnessed signature');
		await enters('isolde', 'maren');
		await does('isolde', { do: 'begin' });
		await does('isolde', confirm('maren'));
		const where = { who: 'maren', paper: 'paper', page: 1, x: 100, y: 100 };
		await does('isolde', { do: 'place', kind: 'initials', ...where });
		expect(await code(deed('isolde', { do: 'place', kind: 'initials', ...where, page: 7 }))).toBe('no-page');
		expect(await code(deed('maren', { do: 'place', kind: 'initials', ...where }))).toBe('not-notary');
		const off = { ...state(packet).plan.fields[0]!, id: 'off', rect: { x: 500, y: 10, width: 150, height: 20 } };
		const asked = { do: 'placeFields' as const, person: 'isolde', plan: 'x', fields: [off] };
		expect(decide(state(packet), asked, t.house.now().toISOString())).toMatchObject({ code: 'off-page' });
		await does('isolde', { do: 'turn', who: 'maren' });
		const { fields } = at('maren').packet.plan;
		const less = answersOf(
			fields.filter((one) => one.kind !== 'initials'),
			'maren'
		);
		expect(await code(finish(t.house, at('maren'), less, FROM))).not.toBe('done');
		ok(signsNow('maren'));
		expect(await code(deed('isolde', { do: 'place', kind: 'initials', ...where }))).toBe('signed-already');
		await does('isolde', {
			do: 'draw',
			text: 'Witnessed.',
			// pressed so near the edge that it would reach over it
			place: { paper: 'paper', page: 1, rect: { x: 560, y: 300, width: 420, height: 110 } }
		});
		const drawn = state(packet).plan.fields.find((one) => one.id === 'notary-act')!;
		expect(drawn.rect.x + drawn.rect.width).toBeLessThan(595);
		expect(state(packet).plan.papers[0]!.pages).toHaveLength(2);
		await does('maren', { do: 'approve' });
		await does('isolde', { do: 'finish' });
		await idle(t);
		expect(state(packet).evidence).not.toBe(null);
	});
});

describe('other ways to come before a notary', () => {
	it('an acknowledged signature may have been made earlier; a certified copy needs nobody', async () => {
		const packet = await before(['maren'], 'acknowledgement');
		agrees('maren');
		ok(signsNow('maren'));
		await does('maren', { do: 'enter' });
		await enters('isolde');
		await does('isolde', { do: 'begin' });
		expect(await code(deed('isolde', { do: 'draw', text: 'x', place: null }))).toBe('confirm-first');
		await does('isolde', confirm('maren'));
		expect(await code(deed('maren', { do: 'oath' }))).toBe('no-oath');
		await draws(ok(roomView(t.house, at('isolde'))).toDraw);
		await does('maren', { do: 'approve' });
		await does('isolde', { do: 'finish' });
		await idle(t);
		expect(state(packet).status).toBe('completed');
		const copy = await out(t, [['isolde:notarises']], notaryOf('certified copy'));
		await enters('isolde');
		await does('isolde', { do: 'begin' });
		expect(ok(roomView(t.house, at('isolde'))).toDraw).toContain('2 pages, against the original');
		await draws();
		await does('isolde', { do: 'finish' });
		expect(state(copy).status).toBe('completed');
		expect(journalOf(t.house.db, isolde).map((one) => [one.n, one.act])).toEqual([
			[2, 'certified copy'],
			[1, 'acknowledgement']
		]);
	});

	it('on one device: the notary hands it to each in turn', async () => {
		const guest = { deliver: 'in person' as const, hostedBy: 'isolde', email: '' };
		const packet = await before(['maren', 'ruben'], 'witnessed signature', { maren: guest, ruben: guest });
		await enters('isolde');
		await does('isolde', { do: 'begin' });
		for (const who of ['maren', 'ruben']) {
			await does('isolde', confirm(who));
			await does('isolde', { do: 'turn', who });
			const { token } = ok(handDevice(t.house, at('isolde'), who, FROM));
			const handed = () => ok(visit(t.house, token));
			ok(openAndConsent(t.house, handed(), FROM));
			// the notary's page is not open while a guest has the device
			t.clock.now += 600_000;
			expect(roomView(t.house, handed())).toMatchObject({ turn: who });
			ok(finish(t.house, handed(), answersOf(handed().packet.plan.fields, who), FROM));
		}
		await draws();
		for (const who of ['maren', 'ruben']) {
			const { token } = ok(handDevice(t.house, at('isolde'), who, FROM));
			expect(await code(doInRoom(t.house, ok(visit(t.house, token)), { do: 'approve' }, FROM))).toBe('done');
		}
		await does('isolde', { do: 'finish' });
		expect(state(packet).status).toBe('completed');
	});

	it('the stand-in plays the notary by itself, as far as the others have come', async () => {
		letPlay(t.house, isolde, true);
		const packet = await before(['maren'], 'sworn statement');
		await idle(t);
		expect(state(packet).session.present).toEqual([]);
		await enters('maren');
		await idle(t);
		expect(state(packet).session).toMatchObject({ running: true, turn: null });
		await does('maren', { do: 'oath' });
		await idle(t);
		expect(state(packet).session.turn).toBe('maren');
		ok(signsNow('maren'));
		await idle(t);
		expect(state(packet).session.drawn?.text).toContain('took the oath');
		await does('maren', { do: 'approve' });
		await idle(t);
		expect(state(packet).evidence).not.toBe(null);
		expect(checkData(t.house.db).faults).toEqual([]);
	});

	it('the words of the room are for those in it, until the packet has ended', async () => {
		const packet = await before(['maren'], 'witnessed signature');
		agrees('maren');
		expect(await code(deed('maren', { do: 'say', text: 'Hello?' }))).toBe('not-in-room');
		await enters('maren', 'isolde');
		await does('maren', { do: 'say', text: 'Good morning' });
		await does('isolde', { do: 'show', paper: 'paper', page: 1 });
		expect(await code(deed('isolde', { do: 'show', paper: 'paper', page: 9 }))).toBe('no-page');
		expect(await code(deed('maren', { do: 'show', paper: 'paper', page: 0 }))).toBe('not-notary');
		expect(roomView(t.house, at('isolde'))).toMatchObject({
			page: { page: 1 },
			words: [{ name: 'Maren', mine: false, said: 'Good morning' }]
		});
		ok(withdraw(t.house, t.odile, packet, 'found'));
		expect(t.house.db.prepare('SELECT count(*) FROM room_words').pluck().get()).toBe(0);
	});
});

describe('what can’t be', () => {
	it('a commission that has ended, or that is taken out: a sentence before sending, and in the session', async () => {
		const packet = await before(['maren'], 'witnessed signature');
		await enters('isolde', 'maren');
		ok(keepNotary(t.house, by(), { ...COMMISSION, until: '2026-11-20' }, isolde));
		expect(await deed('isolde', { do: 'begin' })).toMatchObject({
			code: 'commission-ended',
			say: 'The commission of Isolde Marchbank ended on 2026-11-20. Choose another notary; all else is kept.'
		});
		const { plan } = state(packet);
		const again = { ...plan, people: plan.people.map((one) => ({ ...one, note: undefined })) };
		expect(sendPlan(t.house, t.odile, again)).toMatchObject({ code: 'commission-ended' });
		ok(keepNotary(t.house, by(), COMMISSION, isolde));
		endNotary(t.house, by(), isolde, true);
		expect(sendPlan(t.house, t.odile, again)).toMatchObject({ code: 'notary-gone' });
	});

	it('a commission that ends in the middle: the act can’t be finished, and all else stands', async () => {
		const packet = await before(['maren'], 'witnessed signature');
		await signed('maren');
		await draws();
		await does('maren', { do: 'approve' });
		ok(keepNotary(t.house, by(), { ...COMMISSION, until: '2026-11-23' }, isolde));
		expect(await code(deed('isolde', { do: 'finish' }))).toBe('commission-ended');
		expect(state(packet).session.approved).toEqual(['maren']);
		expect(journalOf(t.house.db, isolde)).toEqual([]);
	});

	it('a plan in which the notary takes part, comes too early, or has nobody to come: each said at its place', async () => {
		const packet = await before(['maren'], 'sworn statement');
		const { plan } = state(packet);
		const codes = (change: Partial<typeof plan>) =>
			preflight({ ...plan, ...change })
				.filter((one) => !one.mild)
				.map((one) => one.code);
		const people = (changes: Record<string, Partial<PlanPerson>>) =>
			plan.people.map((one) => ({ ...one, ...changes[one.id] }));
		expect(codes({})).toEqual([]);
		expect(codes({ people: people({ maren: { email: COMMISSION.email.toUpperCase() } }) })).toContain('notary-signs');
		expect(
			codes({
				stops: [
					{ id: 'a', people: ['isolde'] },
					{ id: 'b', people: ['maren'] }
				]
			})
		).toEqual(expect.arrayContaining(['after-notary', 'nobody-before']));
		expect(codes({ people: people({ isolde: { notary: undefined } }) })).toContain('no-commission');
		expect(codes({ people: people({ maren: { ink: true } }) })).toContain('ink-before');
		expect(codes({ people: people({ maren: { duty: 'approves' } }) })).toContain('only-signers-before');
		expect(codes({ stops: [{ ...plan.stops[0]!, anyOne: true }] })).toContain('notary-in-group');
		expect(codes({ people: people({ maren: { duty: 'notarises' } }) })).toContain('two-notaries');
		expect(preflight(plan).map((one) => one.code)).toContain('not-shown-before');
	});

	it('nobody is the notary but who has the commission: not by another address, a link handed on, or a part taken over', async () => {
		const packet = await out(t, [['tamsin'], ['maren', 'isolde:notarises']], notaryOf('witnessed signature'), {
			sending: { handOver: true }
		});
		const { plan } = state(packet);
		const sends = (change: Partial<PlanPerson>) =>
			code(
				sendPlan(t.house, t.odile, {
					...plan,
					people: plan.people.map((one) => ({ ...one, note: undefined, ...(one.id === 'isolde' && change) }))
				})
			);
		expect(await sends({ email: 'odile@elsewhere.example' })).toBe('not-the-notary');
		expect(await sends({ name: 'Somebody Else' })).toBe('not-the-notary');
		expect(await sends({ deliver: 'link' })).toBe('notary-by-mail');
		expect(await sends({ email: COMMISSION.email.toUpperCase() })).toBe('done');
		expect(await code(correctAddress(t.house, t.odile, packet, 'isolde', 'odile@elsewhere.example'))).toBe(
			'notary-address'
		);
		agrees('tamsin');
		ok(handOver(t.house, at('tamsin'), { name: 'Isolde', email: COMMISSION.email, why: 'away' }, FROM));
		await idle(t);
		const hers = at('isolde');
		ok(openAndConsent(t.house, hers, FROM));
		ok(finish(t.house, at('isolde'), answersOf(hers.packet.plan.fields, 'tamsin'), FROM));
		await idle(t);
		await enters('isolde');
		expect(await code(deed('isolde', { do: 'begin' }))).toBe('notary-signs');
	});

	it('an appointment in the past, outside the hours, or after the last day', async () => {
		const packet = await before(['maren'], 'witnessed signature');
		const set = (starts: string, minutes = 30) => code(appoint(t.house, t.odile, packet, starts, minutes));
		expect(await set('2026-11-23T10:00:00Z')).toBe('appointment-past');
		expect(await set('nonsense')).toBe('appointment-past');
		expect(await set('2026-11-28T10:00:00Z')).toBe('not-in-hours');
		expect(await set('2026-11-25T16:45:00Z')).toBe('not-in-hours');
		expect(await set('2027-03-25T10:00:00Z')).toBe('appointment-late');
		expect(await set('2026-11-25T16:30:00Z')).toBe('done');
		expect(sessionsOf(t.house.db, isolde)).toMatchObject([{ packet, starts: '2026-11-25T16:30:00Z', people: 1 }]);
		expect(hoursInWords(COMMISSION)).toBe('Monday, Tuesday, Wednesday, Thursday, Friday, 09:00 to 17:00');
	});

	it('a refusal ends it for everyone, with its reason in the journal', async () => {
		const packet = await before(['maren'], 'sworn statement');
		await enters('isolde', 'maren');
		expect(await code(deed('maren', { do: 'refuse', why: 'x' }))).toBe('not-notary');
		await does('isolde', { do: 'refuse', why: 'Does not understand what is signed.' });
		expect(state(packet).status).toBe('declined');
		expect(journalOf(t.house.db, isolde)).toMatchObject([
			{ n: 1, outcome: 'refused', reason: 'Does not understand what is signed.' }
		]);
	});

	it('the notary declines outside the room as well: the journal has it', async () => {
		await before(['maren'], 'sworn statement');
		agrees('isolde');
		ok(decline(t.house, at('isolde'), 'I know her too well.', FROM));
		expect(journalOf(t.house.db, isolde)).toMatchObject([{ outcome: 'refused', reason: 'I know her too well.' }]);
	});

	it('another address is another person: what the notary knew of them is forgotten', async () => {
		const packet = await before(['maren'], 'sworn statement');
		await enters('isolde', 'maren');
		await does('isolde', { do: 'begin' });
		await does('isolde', confirm('maren'));
		await does('maren', { do: 'oath' });
		ok(correctAddress(t.house, t.odile, packet, 'maren', 'm.lindqvist@post.example'));
		expect(state(packet).session).toMatchObject({ confirmed: {}, sworn: [], present: ['isolde'] });
	});

	it('nobody who is not of the session sees the room, nor before they have shown who they are', async () => {
		const packet = await out(t, [['tamsin:approves'], ['maren', 'isolde:notarises'], ['ruben:gets a copy']], {
			...notaryOf('witnessed signature'),
			maren: { check: { by: 'mail' } }
		});
		expect(roomView(t.house, at('tamsin'))).toMatchObject({ code: 'no-session' });
		agrees('tamsin');
		ok(finish(t.house, at('tamsin'), {}, FROM));
		await idle(t);
		expect(roomView(t.house, at('maren'))).toMatchObject({ code: 'not-proved' });
		expect(await code(deed('maren', { do: 'enter' }))).toBe('not-proved');
		expect(linkTo(t.house, COMMISSION.email)).toHaveLength(43);
		expect(state(packet).session.present).toEqual([]);
	});
});

describe('the journal', () => {
	it('is a chain that says so when it was changed, and goes out as CSV and as PDF', async () => {
		await before(['maren'], 'sworn statement');
		await enters('isolde', 'maren');
		await does('isolde', { do: 'refuse', why: '=HYPERLINK("x")' });
		const csv = journalAsCsv(t.house.db, isolde);
		expect(csv.split('\r\n')[0]).toContain('Number,Time,Act,Outcome');
		expect(csv).toContain(`'=HYPERLINK`);
		const pdf = await openPdf(await journalAsPdf(t.house, isolde));
		if (typeof pdf === 'string') throw new Error(pdf);
		expect(
			pdf
				.words(0)
				.map((word) => word.text)
				.join(' ')
		).toContain('1. sworn statement, refused');
		pdf.close();
		expect(checkData(t.house.db).faults).toEqual([]);
		const { db } = t.house;
		expect(() => db.prepare("UPDATE notary_journal SET body = '{}'").run()).toThrow('never changed');
		db.exec('DROP TRIGGER notary_journal_stays');
		db.prepare("UPDATE notary_journal SET body = replace(body, 'refused', 'done')").run();
		expect(checkData(db).faults).toEqual([`Journal of notary ${isolde}: line 1 does not follow from those before it.`]);
	});

	it('a notary under another name signs with another key; what the old one has signed is still to be trusted', async () => {
		const signer = async () => organisationIn((await standInNotaries(t.house).identity(isolde))!.certificate);
		expect(await signer()).toBe('Isolde Marchbank');
		ok(keepNotary(t.house, by(), { ...COMMISSION, name: 'Isolde Thorne' }, isolde));
		expect(await signer()).toBe('Isolde Thorne');
		expect(rootsOf(t.house.db).filter((root) => root.name.startsWith('notary-'))).toHaveLength(2);
	});

	it('what can’t be a commission is refused, with where it lies', () => {
		const wrong = (change: object) => (keepNotary(t.house, by(), { ...COMMISSION, ...change }, null) as Refusal).code;
		expect(wrong({ email: 'nobody' })).toBe('bad-address');
		expect(wrong({ zone: 'Europe/Nowhere' })).toBe('bad-zone');
		expect(wrong({ until: '2024-01-01' })).toBe('ends-before');
		expect(wrong({ hours: { days: [1], from: '17:00', to: '09:00' } })).toBe('no-hours');
		expect(toPem(new Uint8Array(3))).toContain('CERTIFICATE');
	});
});
