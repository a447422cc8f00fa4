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
		const still = percentile(await framesWhile(page, 2000), 95);
		const frames = framesWhile(page, 8000);
		for (let i = 0; i < 150; i++) {
			await page.mouse.wheel(0, 900);
			await page.waitForTimeout(40);
		}
		const moving = percentile(await frames, 95);
		const reached = await page.evaluate(() =>
			Math.max(
				...[...document.querySelectorAll('tr[data-index]')].map((row) => Number((row as HTMLElement).dataset['index']))
			)
		);
		if (reached < 1000) throw new Error(`only row ${reached} was reached`);
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
				moving,
				'ms',
				{ what: 'the same page at rest', value: still },
				{ ratio: 1.1 }
			)
		];
	});
}
