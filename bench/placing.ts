import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { FORMS } from '../demo/forms';
import { signIn } from '../e2e/kit/server';
import { placesOn, snap, snapTargets, shownPage } from '../src/lib/core/page';
import { emptyPlan, preflight, type Field, type Plan } from '../src/lib/core/packet';
import { isRefusal } from '../src/lib/core/refusal';
import { takeIn } from '../src/lib/press/take-in';
import { figure, median, percentile, type Figure } from './measure';
import { withBrowser } from './server';
import { letterLike } from './press';

const PAGES = 100;
const FIELDS = 500;

/** Notes in the page itself when its first picture is there: whoever waits from outside looks only every half a second. */
const FIRST_DRAWN = `new MutationObserver((_, observer) => {
	if (!document.querySelector('[data-sheet="d-0"] canvas[data-drawn=yes]')) return;
	window.firstDrawn = performance.now();
	observer.disconnect();
}).observe(document, { subtree: true, childList: true, attributes: true, attributeFilter: ['data-drawn'] })`;

/** The Bench with a document of 100 pages and 500 fields, in the browser; and what core does for it. */
export async function benchPlacing(): Promise<Figure[]> {
	return [...(await inCore()), ...(await inBrowser())];
}

async function inCore(): Promise<Figure[]> {
	const form = await FORMS[2]!.make();
	const taken = await takeIn(form.bytes);
	if (isRefusal(taken)) throw new Error(taken.say);
	const page = taken.pages[0]!;
	const reading = await median(200, () => shownPage(taken, 0, page));
	const finding = await median(200, () => placesOn(taken, 0, page));
	const targets = snapTargets(
		shownPage(taken, 0, page),
		Array.from({ length: 60 }, (_, i) => ({ left: 40 + i * 7, top: 30 + i * 12, width: 80, height: 20 }))
	);
	const rect = { left: 203, top: 401, width: 90, height: 20 };
	const snapping = await median(500, () => {
		for (let i = 0; i < 100; i++) snap({ ...rect, left: rect.left + i }, targets, 6);
	});
	const walking = await median(500, () => {
		let sum = 0;
		for (let i = 0; i < 100; i++) for (const t of [...targets.across, ...targets.down]) sum += Math.abs(t.at - i);
		return sum;
	});
	const plan = largePlan(
		'a'.repeat(64),
		Array.from({ length: PAGES }, () => ({ width: 595, height: 842, rotate: 0 as const }))
	);
	const checking = await median(50, () => preflight(plan));
	const copying = await median(50, () => JSON.parse(JSON.stringify(plan)) as Plan);
	return [
		figure('find the places of a dense page', finding, 'ms', { what: 'reading its words and lines', value: reading }),
		figure(
			'snap 100 times to a dense page and 60 fields',
			snapping,
			'ms',
			{ what: 'walking the same targets', value: walking },
			{ value: 17 }
		),
		figure(
			`preflight of ${FIELDS} fields`,
			checking,
			'ms',
			{ what: 'copying the same plan as JSON', value: copying },
			{ value: 17 }
		)
	];
}

function largePlan(digest: string, pages: Plan['papers'][0]['pages']): Plan {
	const people = ['Maren Lindqvist', 'Tamsin Okoro', 'Gwen Aldous', 'Ruben Vasquez-Lind'].map((name, i) => ({
		id: `p${i}`,
		name,
		email: `p${i}@post.example`,
		duty: 'signs' as const
	}));
	const fields = Array.from({ length: FIELDS }, (_, i): Field => ({
		id: `f${i}`,
		kind: (['signature', 'text', 'number', 'signing-date', 'initials'] as const)[i % 5]!,
		person: `p${i % 4}`,
		paper: 'd',
		page: Math.floor(i / 5) % pages.length,
		rect: { x: 40 + 100 * (i % 5), y: 700 - 24 * (i % 20), width: 90, height: 20 },
		label: `Field ${i}`,
		key: i % 5 === 1 || i % 5 === 2 ? `key_${i}` : '',
		required: true,
		...(i % 10 === 1 && { showWhen: `key_${i + 1} > 10` }),
		settings: {}
	}));
	return {
		...emptyPlan(),
		title: 'Large',
		papers: [{ id: 'd', name: 'Large', digest, pages }],
		people,
		stops: people.map((p, i) => ({ id: `s${i}`, people: [p.id] })),
		fields
	};
}

async function inBrowser(): Promise<Figure[]> {
	return withBrowser(async (browser, server) => {
		const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
		await signIn(page, server);
		const url = await largeDraft(page, server.origin);
		await page.addInitScript(FIRST_DRAWN);
		const opening: number[] = [];
		for (let i = 0; i < 5; i++) {
			await page.goto(`${server.origin}/desk`);
			await page.goto(url);
			await page.locator('[data-sheet="d-0"] canvas[data-drawn=yes]').waitFor();
			opening.push(await page.evaluate<number>('window.firstDrawn'));
		}
		// scrolled through once, so that what isn't let go shows
		for (let i = 0; i < 40; i++) {
			await page.getByTestId('sheets').evaluate((box, n) => (box.scrollTop = (box.scrollHeight / 40) * n), i);
			await page.waitForTimeout(30);
		}
		await page.getByTestId('sheets').evaluate((box) => (box.scrollTop = 0));
		await page.waitForTimeout(1500);
		const memory = await held(page);
		const { frames, work } = await dragged(page);
		const still = percentile(await framesWhile(page, 2000), 95);
		return [
			figure(
				`open ${PAGES} pages with ${FIELDS} fields, page 1 drawn`,
				percentile(opening, 50),
				'ms',
				{ what: 'the goal itself', value: 1000 },
				{ value: 1000 }
			),
			figure(
				'held by its process after scrolling through',
				memory,
				'MB',
				{ what: 'the goal itself', value: 400 },
				{ value: 400 }
			),
			figure(
				'work a frame while dragging, p95 (browser’s trace)',
				percentile(work, 95),
				'ms',
				{ what: 'a frame at 60 a second', value: 1000 / 60 },
				{ value: 17 }
			),
			figure(
				'from frame to frame while dragging, p95',
				percentile(frames, 95),
				'ms',
				{ what: 'the same page at rest', value: still },
				{ ratio: 1.1 }
			)
		];
	});
}

/** A draft of 100 pages and 500 fields; its address. */
async function largeDraft(page: Page, origin: string): Promise<string> {
	await page.getByRole('button', { name: 'New packet' }).click();
	await page.waitForURL('**/bench/*');
	const headers = { origin };
	const upload = await page.request.post(`${page.url()}/papers?name=Large.pdf`, {
		data: Buffer.from(await letterLike(PAGES)),
		headers
	});
	const taken = (await upload.json()) as { digest: string; pages: Plan['papers'][0]['pages'] };
	const saved = await page.request.put(`${page.url()}/save`, {
		data: { revision: 1, plan: largePlan(taken.digest, taken.pages) },
		headers
	});
	if (!saved.ok()) throw new Error(await saved.text());
	return page.url();
}

/** Megabytes of memory the page's own process holds, shared ones by their share (Linux, Pss). */
async function held(page: Page): Promise<number> {
	const root = await page.context().browser()!.newBrowserCDPSession();
	const { processInfo } = (await root.send('SystemInfo.getProcessInfo')) as {
		processInfo: { type: string; id: number }[];
	};
	const sizes = processInfo
		.filter((p) => p.type === 'renderer')
		.map(
			(p) =>
				Number(
					/^Pss:\s+(\d+)/m.exec(readFileSync(path.join('/proc', String(p.id), 'smaps_rollup'), 'utf8'))?.[1] ?? 0
				) / 1024
		);
	return Math.max(...sizes);
}

interface TraceEvent {
	name: string;
	ph: string;
	ts: number;
	dur?: number;
	tid: number;
	pid: number;
}

/** Drags one field of a full page about for some seconds under the browser's tracing: gaps between frames, work in each. */
async function dragged(page: Page): Promise<{ frames: number[]; work: number[] }> {
	const browser = page.context().browser()!;
	const box = (await page.locator('[data-field="f1"]').boundingBox())!;
	await page.mouse.move(box.x + 40, box.y + 10);
	await page.mouse.down();
	await browser.startTracing(page, {
		categories: ['devtools.timeline', 'disabled-by-default-devtools.timeline', 'toplevel']
	});
	// asks for every frame there is, so that one which comes late shows
	const frames = framesWhile(page, 2500);
	const until = Date.now() + 2500;
	for (let i = 0; Date.now() < until; i++)
		await page.mouse.move(box.x + 40 + 120 * Math.sin(i / 9), box.y + 10 + 90 * Math.cos(i / 13));
	const gaps = await frames;
	const trace = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] };
	await page.mouse.up();
	const events = trace.traceEvents;
	const main = events.find((e) => e.name === 'FireAnimationFrame');
	if (!main) throw new Error('the trace has no frames');
	const mine = (e: TraceEvent) => e.pid === main.pid && e.tid === main.tid;
	const starts = [...new Set(events.filter((e) => e.name === 'FireAnimationFrame' && mine(e)).map((e) => e.ts))].sort(
		(a, b) => a - b
	);
	const tasks = events.filter((e) => mine(e) && e.name === 'RunTask' && e.dur !== undefined);
	const work: number[] = [];
	for (let i = 1; i < starts.length; i++) {
		const [from, to] = [starts[i - 1]!, starts[i]!];
		// several callbacks of one frame stand close together
		if (to - from < 4000) continue;
		work.push(
			tasks.reduce((sum, t) => sum + Math.max(0, Math.min(t.ts + t.dur!, to) - Math.max(t.ts, from)), 0) / 1000
		);
	}
	return { frames: gaps, work };
}

/** Gaps between frames for some time. Given as text: what the compiler adds to a function is not in the page. */
export function framesWhile(page: Page, ms: number): Promise<number[]> {
	return page.evaluate(`new Promise((done) => {
		const gaps = [];
		let last = 0;
		const end = performance.now() + ${ms};
		requestAnimationFrame(function step(now) {
			if (last > 0) gaps.push(now - last);
			last = now;
			if (now < end) requestAnimationFrame(step);
			else done(gaps);
		});
	})`);
}
