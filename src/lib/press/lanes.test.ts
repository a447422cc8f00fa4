import { afterAll, describe, expect, it } from 'vitest';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { letterLike } from '../../../bench/press';
import { pdf } from '../../../e2e/kit/pdfs';
import { closeLanes, inLane, JobEnded, type Told } from './lanes';

afterAll(closeLanes);

const why = async (job: Promise<unknown>): Promise<string> => {
	try {
		await job;
		return 'done';
	} catch (error) {
		return error instanceof JobEnded ? error.why : String(error);
	}
};

describe('jobs in lanes', () => {
	it('may wait longer than they may work: the time begins when a worker takes them', async () => {
		const bytes = await letterLike(24);
		const job = (time: number) => inLane('takeInJob', { bytes }, { lane: 'short', time });
		await job(30_000);
		const start = performance.now();
		await job(30_000);
		const one = performance.now() - start;
		// the last waits for five others, and may work no longer than three take
		const all = await Promise.all(Array.from({ length: 6 }, () => why(job(3 * one + 200))));
		expect(all).toEqual(Array(6).fill('done'));
	});
	it('say that they wait, that they are taken, and at which page they are', async () => {
		const told: Told[] = [];
		await inLane(
			'takeInJob',
			{ bytes: await pdf(3) },
			{ lane: 'short', time: 30_000, told: (what) => told.push(what) }
		);
		expect(told.map((what) => what.is)).toEqual(['queued', 'working', 'page', 'page', 'page']);
		expect(told.at(-1)).toEqual({ is: 'page', page: 3, of: 3 });
	});
	it('end when they are called off, when their time is over, or when they break, each told apart', async () => {
		const bytes = await letterLike(40);
		const ending = new AbortController();
		const called = why(inLane('takeInJob', { bytes }, { lane: 'short', time: 30_000, signal: ending.signal }));
		setTimeout(() => ending.abort(), 50);
		expect(await called).toBe('cancelled');
		expect(await why(inLane('takeInJob', { bytes }, { lane: 'short', time: 20 }))).toBe('heavy');
		expect(await why(inLane('drawn', { bytes: 7 }, { lane: 'short', time: 30_000 }))).toBe('broken');
	});
	it.runIf(process.platform === 'linux')('are held to what they work, not to what they are kept waiting', async () => {
		const file = path.join(mkdtempSync(path.join(tmpdir(), 'lanes-')), 'worker.mjs');
		writeFileSync(
			file,
			`import { readlinkSync } from 'node:fs';
			const thread = () => readlinkSync('/proc/thread-self').split('/').at(-1);
			export const waits = ({ job, port }) => (port.postMessage({ thread: thread() }), new Promise((done) => setTimeout(done, job.ms)));
			export const works = ({ job, port }) => { port.postMessage({ thread: thread() }); for (;;); };`
		);
		await closeLanes();
		const before = process.env['PELLUM_WORKER'];
		process.env['PELLUM_WORKER'] = file;
		try {
			expect(await why(inLane('waits', { ms: 1000 }, { lane: 'short', time: 400 }))).toBe('done');
			expect(await why(inLane('waits', { ms: 600_000 }, { lane: 'short', time: 100 }))).toBe('heavy');
			expect(await why(inLane('works', {}, { lane: 'short', time: 100 }))).toBe('heavy');
		} finally {
			await closeLanes();
			if (before === undefined) delete process.env['PELLUM_WORKER'];
			else process.env['PELLUM_WORKER'] = before;
		}
	});
	it.runIf(process.platform === 'linux')('that take long give way to the server and to what is soon done', async () => {
		// proc(5): what stands after the closing bracket begins at field 3, and nice is field 19
		const nice = (file: string) => Number(readFileSync(file, 'utf8').split(') ')[1]!.split(' ')[16]);
		const threads = () => readdirSync('/proc/self/task').map((id) => nice(`/proc/self/task/${id}/stat`));
		await closeLanes();
		const own = nice('/proc/self/stat');
		await inLane('takeInJob', { bytes: await pdf(1) }, { lane: 'short', time: 30_000 });
		expect(Math.max(...threads())).toBe(own);
		await inLane('takeInJob', { bytes: await pdf(1) }, { lane: 'long', time: 30_000 });
		expect(Math.max(...threads())).toBe(Math.min(19, own + 10));
	});
	it('of one lane don’t wait for those of another', async () => {
		const bytes = await letterLike(50);
		let long = false;
		const slow = Promise.all(
			Array.from({ length: 4 }, () => inLane('takeInJob', { bytes }, { lane: 'long', time: 60_000 }))
		).then(() => (long = true));
		await inLane('takeInJob', { bytes: await pdf(1) }, { lane: 'short', time: 30_000 });
		expect(long).toBe(false);
		await slow;
	});
});
