import type { CDPSession } from '@playwright/test';
import { engagement } from '../demo/documents';
import { drafted, field, sends } from '../e2e/kit/draft';
import { linkFromMail, signIn } from '../e2e/kit/server';
import { figure, percentile, type Figure } from './measure';
import { withBrowser } from './server';

/** Slow 4G, as browsers' own tools name it: 1.6 Mbit/s down, 750 kbit/s up, 150 ms there and back; a phone's processor, four times slower. */
const NETWORK = { offline: false, downloadThroughput: 1_600_000 / 8, uploadThroughput: 750_000 / 8, latency: 150 };
const SLOWER = 4;

/** What came over the wire, compressed, by the addresses of the requests. */
function weigh(cdp: CDPSession): Map<string, number> {
	const urls = new Map<string, string>();
	const bytes = new Map<string, number>();
	cdp.on('Network.responseReceived', ({ requestId, response }) => urls.set(requestId, response.url));
	cdp.on('Network.loadingFinished', ({ requestId, encodedDataLength }) =>
		bytes.set(urls.get(requestId) ?? requestId, encodedDataLength)
	);
	return bytes;
}

/** The first view of the signing page on a slowed phone: its weight, and how soon one can do something there. */
export async function benchSigning(): Promise<Figure[]> {
	return withBrowser(async (browser, server) => {
		const office = await browser.newPage();
		await signIn(office, server);
		await drafted(office, server, {
			title: 'Engagement',
			stops: [['maren']],
			bytes: (await engagement('Maren Lindqvist', 'viola', 'the spring tour', 'GBP 185.00')).bytes,
			fields: [field('note', 'text', 'maren', { required: false })]
		});
		await sends(office);
		const link = await linkFromMail(office, server, 'maren@post.example');
		const usable: number[] = [];
		let weight = 0;
		for (let i = 0; i < 5; i++) {
			const context = await browser.newContext({
				viewport: { width: 390, height: 844 },
				isMobile: true,
				hasTouch: true
			});
			const page = await context.newPage();
			const cdp = await context.newCDPSession(page);
			await cdp.send('Network.enable');
			await cdp.send('Network.emulateNetworkConditions', NETWORK);
			await cdp.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
			const bytes = weigh(cdp);
			// usable: it answers to a press, not only shows itself; noted in the page, since whoever waits outside is slow too
			await page.addInitScript(
				`new MutationObserver((_, observer) => {
					if (document.documentElement?.dataset.ready !== 'yes') return;
					window.usable = performance.now();
					observer.disconnect();
				}).observe(document, { subtree: true, childList: true, attributes: true, attributeFilter: ['data-ready'] })`
			);
			await page.goto(link);
			await page.locator('html[data-ready=yes]').waitFor({ state: 'attached', timeout: 60_000 });
			usable.push(await page.evaluate<number>('window.usable'));
			await page.waitForLoadState('networkidle');

			weight = [...bytes].filter(([url]) => !/pdf|papers/.test(url)).reduce((sum, [, size]) => sum + size, 0) / 1000;
			await context.close();
		}
		return [
			figure(
				'signing page before the PDF viewer, compressed',
				weight,
				'kB',
				{ what: 'the goal itself', value: 250 },
				{ value: 250 }
			),
			figure(
				'signing page usable, slow 4G and a processor four times slower',
				percentile(usable, 50),
				'ms',
				{
					what: 'its bytes over that line, and three ways there and back',
					value: (weight * 8) / 1.6 + 3 * NETWORK.latency
				},
				{ value: 2500 }
			)
		];
	});
}
