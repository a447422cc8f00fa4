import { createServer, type Server, type Socket } from 'node:net';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { out, realPlan, sent, signs, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { checkData } from '../check';
import { needsYou } from '../desk';
import { packetState } from '../packets/act';
import { logOf } from '../log';
import { newDraft } from '../packets/drafts';
import { JobRunner, retryNow } from './index';
import { queue } from './outbox';

const until = async (true_: () => boolean, seconds = 90): Promise<void> => {
	for (let i = 0; i < seconds * 50; i++) {
		if (true_()) return;
		await new Promise((go) => setTimeout(go, 20));
	}
	throw new Error('it did not come about');
};

beforeEach(() => {
	logOf('jobs').level = 'silent';
});

let open: { server: Server; sockets: Socket[] }[] = [];
afterEach(() => {
	for (const { server, sockets } of open) {
		sockets.forEach((one) => one.destroy());
		server.close();
	}
	open = [];
});

/** A server that takes every connection and then does as it is told. */
async function rude(does: (socket: Socket) => void): Promise<string> {
	const sockets: Socket[] = [];
	const server = createServer((socket) => {
		sockets.push(socket);
		socket.on('error', () => {});
		does(socket);
	});
	open.push({ server, sockets });
	await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
	return `smtp://127.0.0.1:${(server.address() as { port: number }).port}?tls.rejectUnauthorized=false`;
}

const whats = (t: TestHouse) => needsYou(t.house, t.odile).map((need) => need.what);

describe('a mail server', () => {
	it.each<[string, (socket: Socket) => void]>([
		['that never says a word', () => {}],
		[
			'that never comes to an end',
			(socket) => {
				const drip = setInterval(() => socket.write('220-wait\r\n'), 50);
				socket.on('close', () => clearInterval(drip));
			}
		]
	])('%s stops no seal, and is told with since when and what waits', async (_, does) => {
		const t = await testHouse();
		const { packet } = await sent(t, [['maren']]);
		await t.runner.drain();
		// from here on mail goes to the rude one
		Object.assign(t.house.config, { smtp: await rude(does), mailSeconds: 1 });
		for (let i = 0; i < 8; i++) await sent(t, [['kit', 'zoë']]);
		const runner = new JobRunner(t.house, 60_000);
		runner.start();
		const before = performance.now();
		await signs({ ...t, runner: { drain: async () => {} } as unknown as JobRunner }, 'maren@post.example');
		await until(() => {
			const state = packetState(t.house.db, packet);
			return state.status === 'completed' && state.evidence !== null;
		});
		expect(performance.now() - before).toBeLessThan(60_000);
		await until(() => t.house.paused.has('message'));
		const need = needsYou(t.house, t.odile).find((one) => one.what === 'lane');
		expect(need).toMatchObject({ lane: 'message', error: 'the mail server took longer than 1 s' });
		expect(need?.what === 'lane' && need.waiting).toBeGreaterThanOrEqual(16);
		await runner.stop();
	});

	it('that is well again is tried by one message, then all go', async () => {
		const t = await testHouse({ smtp: await rude((socket) => socket.end('421 later\r\n')) });
		await sent(t, [['a', 'b', 'c', 'd', 'e', 'f', 'g']]);
		const runner = new JobRunner(t.house, 300);
		runner.start();
		await until(() => t.house.paused.has('message'));
		expect(whats(t)).toContain('lane');
		Object.assign(t.house.config, { smtp: null });
		// one that was still under way is put off only now: time goes on until it is due too
		const later = () => (t.clock.now += 3_600_000);
		await until(() => later() > 0 && !t.house.paused.has('message'));
		await until(() => later() > 0 && !whats(t).some((what) => what === 'lane' || what === 'jobs'));
		expect(t.house.db.prepare('SELECT count(*) AS n FROM mailbox').get()).toEqual({ n: 7 });
		await runner.stop();
	});
});

describe('what can’t be done', () => {
	it('is set aside after its tries, with its reason, and the rest goes on; asked for, it is tried again', async () => {
		const t = await testHouse();
		queue(t.house, 'message', 'poison', { packet: 'no such', person: 7, purpose: {} });
		t.house.db.prepare("UPDATE jobs SET payload = '{' WHERE key = 'poison'").run();
		for (let i = 0; i < 9; i++) {
			await out(t, [['maren']]);
			t.clock.now += 3_600_000;
			await t.runner.drain();
		}
		const state = () =>
			t.house.db.prepare("SELECT attempts, set_aside_at IS NOT NULL AS aside FROM jobs WHERE key = 'poison'").get();
		expect(state()).toEqual({ attempts: 8, aside: 1 });
		expect(
			t.house.db.prepare("SELECT count(*) AS n FROM jobs WHERE done_at IS NULL AND key <> 'poison'").get()
		).toEqual({ n: 0 });
		t.house.db.prepare("UPDATE jobs SET payload = '{}' WHERE key = 'poison'").run();
		expect(needsYou(t.house, t.odile)).toContainEqual(
			expect.objectContaining({ what: 'aside', work: 'message', error: expect.stringContaining('JSON') })
		);
		retryNow(t.house);
		await t.runner.drain();
		expect(state()).toMatchObject({ aside: 0 });
	});

	it('when its time comes keeps no draft and no packet waiting, and is told', async () => {
		const t = await testHouse();
		const plan = await realPlan(t.house, [['maren']]);
		// as an older version kept it: half of a surrogate pair
		const bad = newDraft(t.house, t.odile, { ...plan, title: 'x' });
		const good = newDraft(t.house, t.odile, plan);
		const broken = await out(t, [['kit']]);
		const fine = await out(t, [['zoë']]);
		const at = new Date(t.clock.now + 1000).toISOString();
		t.house.db.prepare("UPDATE drafts SET plan = json_replace(plan, '$.title', 'x'), send_at = ?").run(at);
		t.house.db
			.prepare('UPDATE drafts SET plan = replace(plan, ?, ?) WHERE id = ?')
			.run('"title":"x"', '"title":"Loan \\ud83c"', bad.id);
		t.house.db.prepare('UPDATE packets SET next_at = ?').run(at);
		t.house.db.exec('DROP TRIGGER events_stay');
		t.house.db.prepare("UPDATE events SET body = '{}' WHERE packet = ?").run(broken);
		t.clock.now += 40 * 86_400_000;
		await t.runner.drain();
		expect(packetState(t.house.db, fine).status).toBe('expired');
		expect(t.house.db.prepare('SELECT count(*) AS n FROM drafts WHERE id = ?').get(good.id)).toEqual({ n: 0 });
		const aside = () => needsYou(t.house, t.odile).flatMap((need) => (need.what === 'aside' ? [need] : []));
		expect(aside().map(({ work, id }) => [work, id])).toEqual([
			['clock', broken],
			['draft', bad.id]
		]);
		// not at every tick, but later again
		const tries = () => t.house.db.prepare('SELECT max(tries) AS n FROM troubles').get();
		await t.runner.drain();
		expect(tries()).toEqual({ n: 1 });
		t.clock.now += 6000;
		await t.runner.drain();
		expect(tries()).toEqual({ n: 2 });
		t.house.db.prepare("UPDATE drafts SET plan = json_replace(plan, '$.title', 'Loan') WHERE id = ?").run(bad.id);
		t.clock.now += 60_000;
		await t.runner.drain();
		expect(aside().map(({ work }) => work)).toEqual(['clock']);
	});
});

describe('a disk that is full', () => {
	it('is tried with growing pauses, said once a minute, and blamed on no job', async () => {
		const t = await testHouse();
		await sent(t, [['maren']]);
		const said = vi.spyOn(logOf('jobs'), 'error').mockImplementation(() => {});
		const tried = vi.spyOn(t.house.db, 'transaction');
		t.house.db.pragma('query_only = 1');
		const runner = new JobRunner(t.house);
		runner.start();
		for (let i = 0; i < 80; i++) {
			t.house.changes.emit('jobs');
			await new Promise((go) => setTimeout(go, 50));
		}
		// at 0, 1 and 3 s; not at each of eighty calls
		expect(tried.mock.calls.length).toBeLessThanOrEqual(4);
		expect(said).toHaveBeenCalledTimes(1);
		t.house.db.pragma('query_only = 0');
		await until(() => t.house.db.prepare('SELECT 1 FROM jobs WHERE done_at IS NULL').get() === undefined);
		await runner.stop();
		vi.restoreAllMocks();
		expect(t.house.db.prepare('SELECT sum(attempts) AS n FROM jobs').get()).toEqual({ n: 0 });
		expect(checkData(t.house.db).faults).toEqual([]);
	});
});
