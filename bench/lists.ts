import type { Page } from '@playwright/test';
import Database from 'better-sqlite3';
import path from 'node:path';
import { ready, signIn } from '../e2e/kit/server';
import { fill } from './desk';
import { figure, percentile, type Figure } from './measure';
import { framesWhile } from './placing';
import { withBrowser } from './server';

const ROWS = 10_000;

/** A list of ten thousand rows in the browser: each page of it as the server answers, and frames while it is scrolled through. */
export async function benchLists(): Promise<Figure[]> {
	return withBrowser(async (browser, server) => {
		const db = new Database(path.join(server.env['PELLUM_DATA']!, 'pellum.db'));
		// seven of ten are out
		fill(db, Math.ceil(ROWS / 0.7));
		db.close();
		const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
		await signIn(page, server);
		await page.goto(`${server.origin}/desk`);
		await ready(page);
		const answers: number[] = [];
		page.on('requestfinished', (request) => {
			if (request.url().includes('/desk/rows'))
				answers.push(request.timing().responseEnd - request.timing().requestStart);
		});
		// down to where the next pages are fetched on the way
		for (let i = 0; i < 60; i++) await page.mouse.wheel(0, 900);
		const from = await rowReached(page);
		const still = await drawnBefore(page);
		// by turns, so that what else the machine has to do falls on both
		const [moving, bare]: [number[], number[]] = [[], []];
		for (let turn = 0; turn < TURNS; turn++) {
			moving.push(...(await scrolled(page)));
			bare.push(...(await scrolled(still)));
		}
		const reached = await rowReached(page);
		if (reached < from + 400) throw new Error(`only from row ${from} to ${reached}`);
		return [
			figure(
				'a page of the Desk’s list, answered, p95',
				percentile(answers, 95),
				'ms',
				{ what: 'the goal itself', value: 30 },
				{ value: 30 }
			),
			figure(
				`from frame to frame while ${ROWS.toLocaleString('en-GB')} rows are scrolled, p95`,
				percentile(moving, 95),
				'ms',
				{ what: 'as many rows in a page without scripts', value: percentile(bare, 95) },
				{ ratio: 1.1 }
			)
		];
	});
}

/** px a second: five views of the list, as a hand turns a wheel fast. */
const PACE = 4000;
const SECONDS = 3;
const TURNS = 4;

/** Times from frame to frame in ms, while the page is scrolled down at that pace. */
async function scrolled(page: Page): Promise<number[]> {
	await page.bringToFront();
	const cdp = await page.context().newCDPSession(page);
	const frames = framesWhile(page, SECONDS * 1000);
	await cdp.send('Input.synthesizeScrollGesture', {
		x: 600,
		y: 400,
		yDistance: -PACE * SECONDS,
		speed: PACE,
		gestureSourceType: 'mouse'
	});
	return frames;
}

const rowReached = (page: Page): Promise<number> =>
	page.evaluate(() =>
		Math.max(
			...[...document.querySelectorAll('tr[data-index]')].map((row) => Number((row as HTMLElement).dataset['index']))
		)
	);

/** The list's rows as they look now, over and over, in a page that nothing else happens in: what the browser itself can. */
async function drawnBefore(page: Page): Promise<Page> {
	const { styles, rows } = await page.evaluate(() => ({
		styles: [...document.styleSheets].flatMap((sheet) => [...sheet.cssRules].map((rule) => rule.cssText)).join('\n'),
		rows: [...document.querySelectorAll('tr[data-index]')].map((row) => row.outerHTML).join('')
	}));
	const bare = await page.context().newPage();
	await bare.setContent(`<style>${styles}</style><table class="list"><tbody>${rows.repeat(60)}</tbody></table>`);
	return bare;
}
