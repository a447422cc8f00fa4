import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { mails, ok, realPlan, signs, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import type { Plan } from '../../core/packet';
import { closePool } from '../../press';
import { checkData } from '../check';
import { needsYou } from '../desk';
import { datesAsCalendar } from '../dates';
import { addHoliday } from '../holidays';
import { packetState } from './act';
import { newDraft, readDraft, saveDraft } from './drafts';
import { sendDraft, sendPlan } from './sending';
import { eventsOf } from './log';
import { moveDeadline } from './office';
import { scheduleDraft, unscheduleDraft } from './schedule';

let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});
afterAll(() => closePool());

const DAY = 86_400_000;
const MAREN = 'maren@post.example';

async function out(sending: Plan['sending'], more: Partial<Plan> = {}) {
	const plan = await realPlan(t.house, [['maren']]);
	const packet = ok(sendPlan(t.house, t.odile, { ...plan, ...(sending && { sending }), ...more }));
	await t.runner.drain();
	return packet.packet;
}
/** So many days go by, an hour at a time, as a server that runs would see them. */
async function days(n: number) {
	for (let hour = 0; hour < n * 24; hour += 6) {
		t.clock.now += DAY / 4;
		await t.runner.drain();
	}
}
const subjects = (to: string) => mails(t.house, to).map((m) => m.subject);

describe('what time brings', () => {
	it('reminders after three days, then every two, as many as are allowed; the end, and word of it', async () => {
		const packet = await out({ reminders: { after: 3, every: 2, most: 2 }, warning: 2 });
		await days(11);
		expect(subjects(MAREN).map((s) => s.split(':')[0])).toEqual([
			'To sign',
			'Still waiting for you',
			'Still waiting for you',
			'Last day 4 December 2026',
			'Last day over'
		]);
		const at = eventsOf(t.house.db, packet)
			.filter((e) => e.type === 'Reminded')
			.map((e) => e.at.slice(0, 13));
		// the first drain at or after nine
		expect(at).toEqual(['2026-11-27T09', '2026-11-29T09']);
		expect(packetState(t.house.db, packet).status).toBe('expired');
		expect(checkData(t.house.db).faults).toEqual([]);
	});
	it('a notice so many days before a term ends, by mail and on the Desk; the term is in the calendar', async () => {
		const packet = await out({ term: { months: 2, notice: 10 } });
		await signs(t, MAREN);
		expect(datesAsCalendar(t.house, t.odile)).toContain('Runs out: Guest musician engagement');
		const term = () => needsYou(t.house, t.odile).filter((n) => n.what === 'term');
		await days(49);
		expect(term()).toEqual([]);
		await days(4);
		expect(term()).toMatchObject([{ packet, ends: '2027-01-23' }]);
		expect(subjects(t.odile.email).filter((s) => s.includes('Guest musician engagement'))).toHaveLength(1);
		expect(eventsOf(t.house.db, packet).filter((e) => e.type === 'TermEnding')).toHaveLength(1);
	});
	it('a deadline in working days, past holidays; moved, it is warned of again', async () => {
		expect(addHoliday(t.house, '2026-11-25', 'Founders’ day')).toBeNull();
		expect(addHoliday(t.house, '2026-02-31', 'x')).toMatchObject({ code: 'day-bad' });
		const packet = await out({ workingDays: true, warning: 1 }, { days: 3 });
		const deadline = () => (packetState(t.house.db, packet) as { deadline: string }).deadline.slice(0, 10);
		expect(deadline()).toBe('2026-11-30');
		await days(5);
		ok(moveDeadline(t.house, t.odile, packet, '2026-12-04'));
		expect(moveDeadline(t.house, t.odile, packet, '2026-11-20')).toMatchObject({ code: 'deadline-past' });
		await days(4);
		expect(subjects(MAREN).filter((s) => s.startsWith('Last day '))).toHaveLength(2);
		expect(deadline()).toBe('2026-12-04');
	});
});

describe('sending at a time', () => {
	async function draft() {
		const plan = await realPlan(t.house, [['maren']]);
		const one = newDraft(t.house, t.odile);
		return ok(saveDraft(t.house, t.odile, one.id, 1, plan));
	}
	const at = (n: number) => new Date(t.clock.now + n * DAY).toISOString();

	it('goes by itself, once, and is changed by nobody until then', async () => {
		const { id, revision, plan } = await draft();
		expect(scheduleDraft(t.house, t.odile, id, revision, at(-1))).toMatchObject({ code: 'time-past' });
		ok(scheduleDraft(t.house, t.odile, id, revision, at(2)));
		expect(saveDraft(t.house, t.odile, id, revision, plan)).toMatchObject({ code: 'is-scheduled' });
		await days(1);
		expect(subjects(MAREN)).toEqual([]);
		await days(2);
		expect(subjects(MAREN)).toEqual(['To sign: Guest musician engagement']);
		expect(readDraft(t.house, id)).toBeNull();
	});
	it('is taken back, and can then be changed and sent by hand', async () => {
		const { id, revision, plan } = await draft();
		ok(scheduleDraft(t.house, t.odile, id, revision, at(2)));
		ok(unscheduleDraft(t.house, id));
		const changed = ok(saveDraft(t.house, t.odile, id, revision, { ...plan, title: 'Another' }));
		await days(3);
		expect(subjects(MAREN)).toEqual([]);
		ok(sendDraft(t.house, t.odile, id, changed.revision));
	});
	it('stays a draft where it can’t go, and says why on the Desk', async () => {
		const { id, revision } = await draft();
		ok(scheduleDraft(t.house, t.odile, id, revision, at(1)));
		t.house.db.prepare("UPDATE drafts SET plan = json_set(plan, '$.title', '') WHERE id = ?").run(id);
		await days(2);
		expect(readDraft(t.house, id)).toMatchObject({ sendAt: null, sendFault: 'Give the packet a title.' });
		expect(needsYou(t.house, t.odile)).toContainEqual(
			expect.objectContaining({ what: 'draft', draft: id, fault: 'Give the packet a title.' })
		);
	});
});
