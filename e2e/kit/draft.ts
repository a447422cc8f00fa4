import type { Browser, Page } from '@playwright/test';
import type { Field, Plan, PlanPerson } from '../../src/lib/core/packet';
import { pdf } from './pdfs';
import { field, plan as planOf } from './plans';
import { phone, ready, type Server } from './server';

/** Plans that a browser test begins with, put on the Bench of whoever is signed in; nothing is sent yet. */
export interface Wanted {
	title: string;
	stops: string[][];
	people?: Record<string, Partial<PlanPerson>>;
	fields?: Field[];
	more?: Partial<Plan>;
	/** the document; without it, two pages of a short letter */
	bytes?: Uint8Array;
}

/** Opens a new draft with that plan on its Bench. */
export async function drafted(page: Page, server: Server, wanted: Wanted): Promise<void> {
	await page.goto(`${server.origin}/desk`);
	await ready(page);
	await page.getByRole('button', { name: 'New packet' }).click();
	await page.waitForURL('**/bench/*');
	const url = page.url();
	await page.goto(`${server.origin}/desk`);
	const headers = { origin: server.origin };
	const upload = await page.request.post(`${url}/papers?name=${encodeURIComponent(wanted.title)}.pdf`, {
		data: Buffer.from(wanted.bytes ?? (await pdf(2))),
		headers
	});
	const taken = (await upload.json()) as { digest: string; pages: Plan['papers'][0]['pages'] };
	const first = planOf(wanted.stops, { title: wanted.title });
	const plan: Plan = {
		...first,
		...wanted.more,
		papers: [{ id: 'paper', name: wanted.title, digest: taken.digest, pages: taken.pages }],
		people: first.people.map((p) => ({ ...p, ...wanted.people?.[p.id] })),
		// one below the other, so that nothing lies over anything
		fields: [...first.fields, ...(wanted.fields ?? [])].map((f, i) => ({
			...f,
			rect: { ...f.rect, x: 60 + 180 * Math.floor(i / 12), y: 620 - 34 * (i % 12) }
		}))
	};
	const saved = await page.request.put(`${url}/save`, { data: { revision: 1, plan }, headers });
	if (!saved.ok()) throw new Error(await saved.text());
	await page.goto(url);
	await ready(page);
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
}

/** Sends what stands on the Bench; leaves the packet's page open. */
export async function sends(page: Page, button = 'Send now'): Promise<void> {
	await page.getByRole('button', { name: 'Send…' }).click();
	await page.getByRole('button', { name: button }).click();
	await page.waitForURL('**/packets/*');
}

export { field };

/** The page behind a link, agreed to, in a window of its own. */
export async function takesPart(
	browser: Browser,
	link: string,
	how: { phone?: boolean; locale?: string } = {}
): Promise<Page> {
	const page = how.phone
		? await phone(browser)
		: await (
				await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: how.locale ?? 'en-GB' })
			).newPage();
	await page.goto(link);
	await ready(page);
	await page.getByRole('checkbox', { name: 'I agree' }).check();
	await page.getByRole('button', { name: 'Go to the documents' }).click();
	await page.locator('canvas[data-drawn=yes]').first().waitFor();
	return page;
}

/** Signs by the first hand offered and finishes. */
export async function signsAs(page: Page, name: string, verb = 'Sign'): Promise<void> {
	const hand = page.getByRole('button', { name: `${name}, handwriting 1` });
	const finish = page.getByRole('button', { name: `${verb} as ${name}` });
	await hand.or(finish).first().waitFor();
	if (await hand.count()) await hand.click();
	await finish.click();
	await page.getByRole('heading', { name: /^(Signed|Approved|Filled in|Confirmed)$/ }).waitFor();
}
