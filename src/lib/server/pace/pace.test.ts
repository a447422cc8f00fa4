import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import {
	account,
	FROM,
	idle,
	mails,
	ok,
	out,
	realPlan,
	sent,
	signs,
	testHouse,
	visitor,
	type TestHouse
} from '../../../../e2e/kit/house';
import { amongValue, ANY, EVERYTHING, type CountedWait, type PaceAsked } from '../../core/pace';
import { closePool } from '../../press';
import { checkData } from '../check';
import { needsYou } from '../desk';
import { openFolder } from '../folders';
import { disposeByItself } from '../keeping/disposal';
import { packetPage } from '../lists';
import { setMorning, wantsMorning } from '../morning';
import { readDraft, newDraft } from '../packets/drafts';
import { nudge } from '../packets/office';
import { packetState } from '../packets/state';
import { organisation, setOrganisation } from '../settings';
import { newTemplate, putInUse } from '../templates';
import { morningLetter } from '../../words/morning-mail';
import { decline } from '../signing';
import { count } from './counts';
import { waitsOf } from './curves';
import { helpsWith } from './helping';
import {
	courseOfTemplate,
	forecastOf,
	foretellPlan,
	paceFile,
	paceSeen,
	stumbled,
	stumblesOf,
	usually,
	wantPace
} from './index';

const DAY = 86_400_000;
let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});
afterAll(() => closePool());

const asked = (more: Partial<PaceAsked> = {}): PaceAsked => ({ ...EVERYTHING, ...more });
/** Parts of the office, and of a place of a template, that were done after so many days, as if they had been counted. */
function history(days: number[], facets: [of: string, facet: string, value: string][], week = '2026-11-02'): void {
	const add = t.house.db.prepare(
		`INSERT INTO wait_counts (of, facet, value, clock, week, folder, days, how, n) VALUES (?, ?, ?, 'all', ?, '', ?, 'done', 1)
		 ON CONFLICT DO UPDATE SET n = n + 1`
	);
	for (const [of, facet, value] of facets) for (const one of days) add.run(of, facet, value, week, one);
}
const OFFICE: [string, string, string][] = [
	['part', 'among', amongValue(ANY)],
	['opened', 'among', amongValue(ANY)],
	['reminded', 'among', amongValue(ANY)]
];
const TEN = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

describe('what is counted of packets', () => {
	it('is taken off and added as events come, and is gone with them', async () => {
		const { packet } = await sent(t, [['maren'], ['zoe']]);
		await idle(t);
		expect(waitsOf(t.house, 'packet', 'among', amongValue(ANY))).toEqual([{ days: 0, n: 1, end: null }]);
		t.clock.now += 2 * DAY;
		await signs(t, 'maren@post.example');
		await idle(t);
		t.clock.now += DAY;
		ok(decline(t.house, visitor(t.house, 'zoe@post.example'), 'No.', FROM));
		await idle(t);
		expect(waitsOf(t.house, 'packet', 'among', amongValue(ANY))).toEqual([{ days: 3, n: 1, end: 'declined' }]);
		expect(waitsOf(t.house, 'part', 'among', amongValue(ANY))).toEqual([
			{ days: 1, n: 1, end: 'declined' },
			{ days: 2, n: 1, end: 'done' }
		]);
		expect(checkData(t.house.db).faults).toEqual([]);
		expect((await disposeByItself(t.house, [packet], 'its time is over')).gone).toEqual([packet]);
		await idle(t);
		for (const table of ['waits', 'wait_counts', 'wait_open', 'forecasts', 'coming', 'pace_behind'])
			expect(t.house.db.prepare(`SELECT count(*) FROM ${table}`).pluck().get()).toBe(0);
		expect(checkData(t.house.db).faults).toEqual([]);
	});
	it('is built again from nothing by the job, to the same counts', async () => {
		await sent(t, [['maren']]);
		await out(t, [['kit'], ['zoe']]);
		await signs(t, 'maren@post.example');
		await idle(t);
		const all = () =>
			['waits', 'wait_counts', 'wait_open'].map((table) => t.house.db.prepare(`SELECT * FROM ${table}`).all());
		const before = all();
		t.house.db.exec(
			'DELETE FROM waits; DELETE FROM wait_counts; DELETE FROM wait_open; DELETE FROM coming; DELETE FROM forecasts; INSERT INTO pace_behind SELECT id FROM packets'
		);
		await idle(t);
		expect(all()).toEqual(before);
	});
	it('is brought up for all others where one can’t be read', async () => {
		const { packet } = await sent(t, [['maren']]);
		await idle(t);
		t.house.db.exec('PRAGMA foreign_keys = OFF; DROP TRIGGER IF EXISTS plans_stay');
		t.house.db
			.prepare("UPDATE plans SET json = '{' WHERE digest IN (SELECT plan FROM packet_plans WHERE packet = ?)")
			.run(packet);
		t.house.db.prepare('INSERT INTO pace_behind (packet) VALUES (?)').run(packet);
		await t.runner.drain();
		expect(t.house.db.prepare('SELECT count(*) FROM pace_behind').pluck().get()).toBe(0);
		expect(t.house.db.prepare('SELECT count(*) FROM forecasts').pluck().get()).toBe(0);
	});
});

describe('a forecast', () => {
	it('says nothing where too few have ended, and then when it will likely be done, later the longer it waits', async () => {
		const packet = await out(t, [['maren']]);
		await idle(t);
		expect(forecastOf(t.house.db, packet)).toMatchObject({ tooFew: true, middle: null });
		history([...TEN, ...TEN, ...TEN], OFFICE);
		t.clock.now += 13 * 3_600_000;
		await idle(t);
		const first = forecastOf(t.house.db, packet)!;
		expect(first.tooFew).toBe(false);
		const days = (Date.parse(first.middle!) - t.clock.now) / DAY;
		expect(days).toBeGreaterThan(3);
		expect(days).toBeLessThan(7);
		t.clock.now += 8 * DAY;
		await idle(t);
		expect(Date.parse(forecastOf(t.house.db, packet)!.middle!)).toBeGreaterThan(Date.parse(first.middle!));
		await signs(t, 'maren@post.example');
		await idle(t);
		expect(forecastOf(t.house.db, packet)).toBeNull();
		expect(t.house.db.prepare('SELECT count(*) FROM coming').pluck().get()).toBe(0);
	});
	it('of a plan is said before it goes, with the chance that its last day is too near', async () => {
		history([...TEN, ...TEN], OFFICE);
		const draft = readDraft(t.house, newDraft(t.house, t.odile, (await sent(t, [['maren'], ['zoe']])).plan).id)!;
		const near = foretellPlan(t.house, { ...draft.plan, days: 2 });
		const far = foretellPlan(t.house, { ...draft.plan, days: 60 });
		expect(near.chance).toBeGreaterThan(0.9);
		expect(far.chance).toBeLessThan(0.3);
		expect(near.stops.map(({ place }) => place)).toEqual([0, 1]);
		expect(foretellPlan(t.house, { ...draft.plan, days: null }).chance).toBeNull();
	});
	it('stands on the Desk where something will likely be late, with what helps, and lists go by what is unusual', async () => {
		history([...TEN, ...TEN, 20, 20], OFFICE);
		const slow = await out(t, [['maren']], {}, { days: 4 });
		const calm = await out(t, [['kit']], {}, { days: 60 });
		t.clock.now += 3_600_000;
		await idle(t);
		const late = needsYou(t.house, t.odile).filter((need) => need.what === 'late');
		expect(late).toMatchObject([{ packet: slow, names: 'Maren', middle: expect.stringContaining('Z') }]);
		const letter = (needs: typeof late) =>
			morningLetter({
				to: 'Odile',
				office: 'B',
				needs,
				day: () => 'Friday',
				link: 'https://b.example',
				colour: '#000'
			});
		const helps = 'Maren mostly answers Mondays about 9: remind then.';
		expect(letter(late.map((need) => ({ ...need, helps })))!.text).toMatch(
			/with Maren, will likely not be done by Friday\. Maren mostly answers Mondays about 9: remind then\./
		);
		expect(letter([])).toBeNull();
		// five Mondays at nine
		const past = t.house.db.prepare(
			`INSERT INTO waits (packet, of, person, template, version, type, sender, folder, duty, delivery, language, part_of_day, hour, began, over_at, days, working, how)
			 VALUES (?, 'part', 'maren', '', '', '', '', '', '', '', '', '', '', '2026-10-01', ?, 1, 1, 'done')`
		);
		const person = t.house.db.prepare(
			"INSERT INTO packet_people (packet, person, name, email, standing) VALUES (?, 'maren', 'Maren', 'maren@post.example', 'ended')"
		);
		t.house.db.pragma('foreign_keys = OFF');
		for (const day of ['05', '12', '19', '26', '27']) {
			past.run(`old${day}`, `2026-10-${day}T09:12:00Z`);
			person.run(`old${day}`);
		}
		expect(helpsWith(t.house, slow)).toBe('Maren mostly answers Mondays about 10 (4 of 5 times): remind then.');
		t.clock.now += 3 * DAY;
		await idle(t);
		const order = (turned: boolean) =>
			packetPage(t.house, t.odile, { list: 'open', sort: 'unusual', turned }).rows.map((row) => row.id);
		expect(order(false).toSorted()).toEqual([slow, calm].toSorted());
		expect(order(true)).toEqual(order(false).toReversed());
		expect(packetPage(t.house, t.odile, { list: 'open' }).rows.every((row) => row.likely !== null)).toBe(true);
	});
	it('asks for no work where there is none, and again when it is half a day old', async () => {
		const due = () => t.house.db.prepare("SELECT done_at FROM jobs WHERE key = 'pace'").pluck().get();
		await out(t, [['maren']]);
		await idle(t);
		wantPace(t.house);
		expect(due()).not.toBeNull();
		t.clock.now += 13 * 3_600_000;
		wantPace(t.house);
		expect(due()).toBeNull();
	});
});

describe('what Pace answers', () => {
	it('with no data, with one packet, and with one that is open for three years: sentences and no crash', async () => {
		const nothing = paceSeen(t.house, t.odile, asked());
		expect(nothing).toMatchObject({ out: 0, unusual: [], packets: { now: { n: 0 } } });
		expect(nothing.coming.filter(({ n }) => n !== 0)).toEqual([]);
		await out(t, [['maren']], {}, { days: null });
		await idle(t);
		t.clock.now += 14 * DAY;
		expect(paceSeen(t.house, t.odile, asked()).packets.now).toMatchObject({ n: 1, over: 0, few: true });
		t.clock.now += 3 * 365 * DAY;
		await idle(t);
		const old = paceSeen(t.house, t.odile, asked({ clock: 'working' }));
		expect(old).toMatchObject({ out: 1, packets: { now: { n: 0 } } });
		expect(paceSeen(t.house, t.odile, asked({ filter: { type: 'nothing of the kind' } })).packets.now.n).toBe(0);
		// the machine's clock is set back
		t.clock.now -= 4 * 365 * DAY;
		expect(paceSeen(t.house, t.odile, asked()).out).toBe(1);
		for (const question of ['how long', 'where', 'late', 'badly', 'coming'] as const)
			expect(paceFile(t.house, t.odile, asked(), question)).toMatch(/^\uFEFF\w/);
	});
	it('leaves out what lies in folders that whoever asks doesn’t see into', async () => {
		const by = { account: t.odile, address: '' };
		t.house.db
			.prepare("INSERT INTO folders (name, open, made_at) VALUES ('Claims', 1, '2026-11-01T00:00:00.000Z')")
			.run();
		ok(openFolder(t.house, by, 'Claims', false) ?? {});
		await out(t, [['maren']], {}, { sending: { folder: 'Claims' } });
		await idle(t);
		const ruben = await account(t.house, 'Ruben', 'ruben@brindlevale.example', 'viewer');
		expect(paceSeen(t.house, t.odile, asked()).out).toBe(1);
		expect(paceSeen(t.house, ruben, asked()).out).toBe(0);
		expect(paceSeen(t.house, ruben, asked({ filter: { folder: 'Claims' } })).out).toBe(0);
		expect(paceSeen(t.house, t.odile, asked({ filter: { folder: '' } })).out).toBe(0);
	});
	it('goes from everything to one template: its roles, its versions, a stop that nobody has reached', async () => {
		const made = newTemplate(t.house, t.odile, await realPlan(t.house, [['maren'], ['zoe']]), 'Loan');
		const { template } = ok(putInUse(t.house, t.odile, made.id, made.revision, ''));
		const packet = await out(t, [['maren'], ['zoe']], {}, { from: [{ template, version: 1 }] });
		await idle(t);
		t.clock.now += 2 * DAY;
		await signs(t, 'maren@post.example');
		await idle(t);
		t.clock.now += 7 * DAY;
		const { where, packets } = paceSeen(t.house, t.odile, asked({ filter: { template } }));
		expect(packets.now.n).toBe(1);
		expect(where).toMatchObject({ by: 'role', sorts: [{ value: 'maren' }, { value: 'zoe' }] });
		expect(paceSeen(t.house, t.odile, asked()).where).toMatchObject({ by: 'template', sorts: [{ value: template }] });
		const sent = String(new Date(t.clock.now - 9 * DAY).getUTCHours()).padStart(2, '0');
		const beside = { hour: sent, duty: 'signs', delivery: 'mail', 'part of day': expect.any(String), language: '' };
		for (const [by, value] of Object.entries(beside))
			expect([by, paceSeen(t.house, t.odile, asked({ by: by as PaceAsked['by'] })).where]).toMatchObject([
				by,
				{ by, sorts: [{ value }] }
			]);
		const state = packetState(t.house.db, packet);
		if (state.status === 'none') throw new Error('it is gone');
		const course = courseOfTemplate(t.house, template, state.plan, [2, 1]);
		expect(course.versions.map(({ version }) => version)).toEqual([1]);
		expect(course.places['maren']).toMatchObject({ n: 1, over: 1 });
		expect(courseOfTemplate(t.house, 'another', state.plan, [1])).toMatchObject({ whole: { n: 0 }, versions: [] });
		const viewer = await account(t.house, 'Ruben', 'ruben@brindlevale.example', 'viewer');
		expect(paceSeen(t.house, viewer, asked()).where.sorts).toEqual([]);
	});
	it('fits all that is filtered by at once, and sets the templates of a sender or a type side by side', async () => {
		const [loan, hire] = await Promise.all(
			['Loan', 'Hire'].map(async (title) => {
				const made = newTemplate(t.house, t.odile, await realPlan(t.house, [['maren'], ['zoe']]), title);
				return ok(putInUse(t.house, t.odile, made.id, made.revision, '')).template;
			})
		);
		const ruben = await account(t.house, 'Ruben', 'ruben@brindlevale.example', 'preparer');
		/** a packet and the part of it that Maren has, both over after so many days */
		const over = (id: string, days: number, of: Pick<CountedWait, 'template' | 'type' | 'sender' | 'folder'>) =>
			count(
				t.house.db,
				id,
				(['packet', 'part'] as const).map((what) => ({
					...{ of: what, person: what === 'part' ? 'maren' : '', version: '1', duty: 'signs', delivery: 'mail' },
					...{ language: '', partOfDay: 'morning', hour: '09', reminded: null, warned: null, texted: null },
					...{
						began: '2026-11-10T09:00:00.000Z',
						overAt: '2026-11-11T09:00:00.000Z',
						days,
						working: days,
						how: 'done'
					},
					...of
				}))
			);
		const kinds = [
			{ template: loan!, type: 'A/B', sender: t.odile.id, folder: '' },
			{ template: loan!, type: 'A/B', sender: ruben.id, folder: 'Loans' },
			{ template: hire!, type: 'C', sender: t.odile.id, folder: '' },
			{ template: hire!, type: 'A/B', sender: t.odile.id, folder: '' }
		];
		kinds.forEach((of, i) => {
			for (let n = 0; n < 8; n++) over(`k${i}-${n}`, i + 1, of);
		});
		const seen = (filter: PaceAsked['filter']) => {
			const { packets, where } = paceSeen(t.house, t.odile, asked({ filter, by: 'duty' }));
			return [packets.now.n, where.by, ...where.sorts.map(({ name, course }) => `${name} ${course.half.days}`)];
		};
		expect(seen({})).toEqual([32, 'duty', 'signs 2']);
		expect(seen({ folder: 'Loans' })).toEqual([8, 'duty', 'signs 2']);
		expect(seen({ type: 'A/B' })).toEqual([24, 'template', 'Hire 4', 'Loan 1']);
		expect(seen({ type: 'A/B', folder: '' })).toEqual([16, 'template', 'Hire 4', 'Loan 1']);
		expect(seen({ type: 'B' })).toEqual([0, 'template']);
		expect(seen({ sender: ruben.id })).toEqual([8, 'template', 'Loan 2']);
		expect(seen({ sender: t.odile.id, type: 'A/B' })).toEqual([16, 'template', 'Hire 4', 'Loan 1']);
		expect(seen({ template: loan! })).toEqual([16, 'role', 'Maren 1']);
		expect(seen({ template: loan!, sender: ruben.id })).toEqual([8, 'role', 'Maren 2']);
		expect(seen({ template: hire!, type: 'C' })).toEqual([8, 'role', 'Maren 3']);
		expect(seen({ template: hire!, type: 'C', sender: ruben.id })).toEqual([0, 'role']);
	});
	it('names those of what is filtered by that wait unusually long, and says where only the longest were looked at', async () => {
		history(
			TEN.map((days) => days / 10),
			OFFICE
		);
		const mine = await out(t, [['maren']], {}, { days: null });
		t.clock.now += 3 * DAY;
		await idle(t);
		const names = (filter: PaceAsked['filter']) =>
			paceSeen(t.house, t.odile, asked({ filter })).unusual.map(({ packet }) => packet);
		expect(names({})).toEqual([mine]);
		expect(names({ sender: t.odile.id })).toEqual([mine]);
		expect(names({ sender: 'another' })).toEqual([]);
		expect(names({ sender: t.odile.id, template: 'another' })).toEqual([]);
		expect(paceSeen(t.house, t.odile, asked()).lookedAt).toBeNull();
		t.house.db.pragma('foreign_keys = OFF');
		t.house.db.exec(`CREATE TEMP TABLE p AS SELECT * FROM packets; CREATE TEMP TABLE f AS SELECT * FROM forecasts;`);
		for (let i = 0; i < 500; i++)
			t.house.db
				.exec(`UPDATE p SET id = 'c${i}', reference = 'c${i}', owner = 'another'; INSERT INTO packets SELECT * FROM p;
				UPDATE f SET packet = 'c${i}'; INSERT INTO forecasts SELECT * FROM f;`);
		expect(paceSeen(t.house, t.odile, asked()).lookedAt).toBeNull();
		expect(names({ sender: t.odile.id })).toEqual([]);
		expect(paceSeen(t.house, t.odile, asked({ filter: { sender: t.odile.id } })).lookedAt).toBe(500);
	});
	it('says what is usual of a template only where enough have ended, with those that are open counted', async () => {
		const whole = (template: string): [string, string, string][] => [
			['packet', 'among', amongValue({ ...ANY, template })]
		];
		history([...TEN.slice(0, 7)], whole('few'));
		history(TEN, whole('T1'));
		history(TEN, whole('T2'));
		const open = t.house.db.prepare(
			"INSERT INTO wait_open (of, facet, value, began, folder, n) VALUES ('packet', 'among', ?, '2026-11-02T09', '', ?)"
		);
		open.run(amongValue({ ...ANY, template: 'T2' }), 4);
		const usual = usually(t.house);
		expect(usual('few')).toBeNull();
		expect(usual('T1')).toBe(TEN[4]! * 24);
		// seven of the fourteen
		expect(usual('T2')).toBe(TEN[6]! * 24);
		t.clock.now += 3_600_000;
		t.house.db.exec('UPDATE wait_open SET n = 40');
		expect(usual('T2')).toBeNull();
	});
	it('sets a reminder beside like parts without one', async () => {
		const packet = await out(t, [['maren']], {}, { from: [{ template: 'T1', version: 1 }] });
		t.clock.now += 2 * DAY;
		ok(nudge(t.house, t.odile, packet, 'maren'));
		await idle(t);
		const row = t.house.db.prepare("SELECT reminded, texted FROM waits WHERE of = 'part'").get();
		expect(row).toEqual({ reminded: new Date(t.clock.now).toISOString(), texted: null });
		expect(waitsOf(t.house, 'reminded', 'among', amongValue(ANY))).toHaveLength(1);
	});
});

describe('where people stumble', () => {
	const told = {
		last: 'maren-name',
		fields: [{ field: 'maren-name', seconds: 12, visits: 3, back: 2, refused: [{ code: 'text-empty', n: 1 }] }]
	};
	const who = (packet: string) => {
		void packet;
		return visitor(t.house, 'maren@post.example');
	};
	const allow = (stumbles: boolean) =>
		ok(setOrganisation(t.house.db, { ...organisation(t.house.db), name: 'B', stumbles }));

	it('is counted per field where the organisation lets it, of templates alone, and never of another’s fields', async () => {
		const from = [{ template: 'T1', version: 1 }];
		const packet = await out(t, [['maren'], ['zoe']], {}, { from });
		stumbled(t.house, who(packet), told);
		expect(t.house.db.prepare('SELECT count(*) FROM field_counts').pluck().get()).toBe(0);
		allow(true);
		stumbled(t.house, who(packet), told);
		stumbled(t.house, who(packet), { last: 'zoe-name', fields: [{ ...told.fields[0]!, field: 'zoe-name' }] });
		const { plan } = who(packet).packet;
		expect(stumblesOf(t.house, 'T1', plan)).toMatchObject([
			{
				field: 'maren-name',
				visits: 3,
				seconds: 4,
				back: 2,
				refused: [{ code: 'text-empty', n: 1 }],
				left: 0,
				declined: 0
			}
		]);
		ok(decline(t.house, who(packet), 'No.', FROM));
		await idle(t);
		expect(stumblesOf(t.house, 'T1', plan)[0]).toMatchObject({ declined: 1, left: 0 });
		expect(t.house.db.prepare('SELECT count(*) FROM field_last').pluck().get()).toBe(0);
		expect(stumblesOf(t.house, 'T2', plan)).toEqual([]);
	});
	it('takes so much of one person and no more', async () => {
		allow(true);
		const packet = await out(t, [['maren']], {}, { from: [{ template: 'T1', version: 1 }] });
		for (let i = 0; i < 60; i++) stumbled(t.house, who(packet), told);
		expect(stumblesOf(t.house, 'T1', who(packet).packet.plan)[0]!.visits).toBe(40 * 3);
	});
});

describe('the morning letter', () => {
	it('is off until somebody asks for it, comes on working days at seven with what needs them, and not where nothing does', async () => {
		const packet = await out(t, [['maren']]);
		await idle(t);
		expect(wantsMorning(t.house.db, t.odile.id)).toBe(false);
		setMorning(t.house, t.odile, true);
		const letters = () => mails(t.house, 'odile@brindlevale.example').filter((mail) => /need/.test(mail.subject));
		// Wednesday morning: nothing needs her
		t.clock.now = Date.parse('2026-11-25T07:30:00Z');
		await idle(t);
		expect(letters()).toHaveLength(0);
		ok(decline(t.house, visitor(t.house, 'maren@post.example'), 'Not on these days.', FROM));
		await idle(t);
		t.clock.now = Date.parse('2026-11-26T07:00:00Z');
		await idle(t);
		await idle(t);
		expect(letters()).toHaveLength(1);
		expect(letters()[0]!.text).toMatch(/was declined 25 November 2026\./);
		// no letter at the weekend
		t.clock.now = Date.parse('2026-11-28T09:00:00Z');
		await idle(t);
		expect(letters()).toHaveLength(2);
		t.clock.now = Date.parse('2026-11-29T09:00:00Z');
		await idle(t);
		expect(letters()).toHaveLength(2);
		setMorning(t.house, t.odile, false);
		t.clock.now = Date.parse('2026-11-30T09:00:00Z');
		await idle(t);
		expect(letters()).toHaveLength(2);
		expect(packet).toBeTruthy();
	});
});
