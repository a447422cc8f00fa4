import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { forecast, stopsAhead, countedIn, facetsOf, curveOf, type CountedWait, type Wait } from '../src/lib/core/pace';
import { fold, isOpen, type Plan, type Recorded } from '../src/lib/core/packet';
import { clean } from './kit/axe';
import { takesPart } from './kit/draft';
import { pressInList } from './kit/parts';
import { linkFromMail, ready, Server, signIn } from './kit/server';

const server = new Server();
test.beforeAll(async () => {
	await server.seed('demo').start();
});
test.afterAll(() => server.stop());

/** By keyboard: opens what filters, goes to the option of one choice by its letters, takes it, closes. */
async function filterBy(page: Page, label: string, option: string): Promise<void> {
	// what is on its way here may take the focus from a sheet that has just opened
	await page.waitForLoadState('networkidle');
	await page.getByRole('button', { name: /^Filter/ }).press('Enter');
	await page.getByRole('combobox', { name: label, exact: true }).press('Enter');
	await expect(page.getByRole('option', { name: option, exact: true })).toBeVisible();
	await page.keyboard.type(option.split(' ')[0]!);
	await page.keyboard.press('Enter');
	await expect(page.getByRole('option')).toHaveCount(0);
	await page.keyboard.press('Escape');
	await expect(page.getByRole('dialog')).toHaveCount(0);
}
const answer = (page: Page, question: string) => page.getByRole('region', { name: question, exact: true });

test('Pace answers its five questions by keyboard, from everything to one template in two presses, each with its table and file', async ({
	page
}) => {
	await signIn(page, server);
	await page.getByRole('link', { name: 'Pace', exact: true }).press('Enter');
	await page.waitForURL('**/pace');
	await ready(page);
	await page.getByRole('radio', { name: 'a year' }).press('Enter');
	await expect(page).toHaveURL(/weeks=52/);
	const long = answer(page, 'How long do agreements take?');
	await expect(long).toContainText(/Half of the \d+ packets sent from .* were done within/);
	await expect(answer(page, 'What ends badly?')).toContainText(/declined/);
	await expect(answer(page, 'What is coming?')).toContainText(/will likely be done within a week/);
	await expect(answer(page, 'Who is late, and is that unusual?')).toContainText(/longer than/);
	await clean(page, 'Pace of everything');
	await long.getByRole('button', { name: 'As a table' }).press('Enter');
	await expect(long.getByRole('columnheader', { name: 'Done', exact: true })).toBeVisible();
	const downloading = page.waitForEvent('download');
	await long.getByRole('link', { name: 'Take it away as CSV' }).press('Enter');
	const csv = await readFile(await (await downloading).path(), 'utf8');
	expect(csv.split('\r\n')[0]).toBe('\uFEFFWithin,Done,Done in the weeks before');
	await clean(page, 'Pace with a table');

	const where = answer(page, 'Where do they wait?');
	await where.getByRole('link', { name: 'Guest musician engagement' }).press('Enter');
	await expect(page).toHaveURL(/template=/);
	await where.getByRole('button', { name: 'As a table' }).press('Enter');
	await expect(where.getByRole('cell', { name: 'Company manager' })).toBeVisible();
	await page.getByRole('radio', { name: 'working days' }).press('Enter');
	await expect(page).toHaveURL(/days=working/);
	await clean(page, 'Pace of one template');
	// a filter with nothing: sentences, and an empty picture
	const filter = page.getByRole('button', { name: /^Filter/ });
	await expect(filter).toHaveText('Filter: made from Guest musician engagement');
	await filterBy(page, 'Folder', 'Claims');
	await expect(page).toHaveURL(/template=.*folder=Claims|folder=Claims.*template=/);
	await expect(long).toContainText('Nothing was sent from');
	await clean(page, 'Pace with nothing');
	// of a type, sent by somebody: their templates beside each other
	await page.getByRole('link', { name: 'Everything again' }).press('Enter');
	await expect(page).toHaveURL(/\/pace$/);
	await page.getByRole('radio', { name: 'a year' }).press('Enter');
	await filterBy(page, 'Sent by', 'Tamsin Okoro');
	await expect(page.getByRole('button', { name: 'Filter: sent by Tamsin Okoro' })).toBeVisible();
	await expect(long).toContainText(/Half of the 1\d packets sent/);
	await clean(page, 'Pace of one sender');
	await where.getByRole('link', { name: 'Guest musician engagement' }).press('Enter');
	await expect(page).toHaveURL(/template=.*sender=|sender=.*template=/);
	await expect(long).toContainText(/^\D+5 packets were sent .* too few to say/);
	await page.goBack();
	await expect(long).toContainText(/Half of the 1\d packets sent/);
	await ready(page);
	await filterBy(page, 'Type', 'Loan');
	await expect(filter).toHaveText('Filter: sent by Tamsin Okoro, of the type Loan');
	await expect(long).toContainText('Nothing was sent from');
	await page.getByRole('link', { name: 'Everything again' }).press('Enter');
	await expect(long).toContainText(/packets sent|were sent/);
});

test('the Desk says what will likely be late and goes by what is unusual; packet, sheet of sending and template say how long', async ({
	page
}) => {
	await signIn(page, server);
	await ready(page);
	await expect(page.getByText(/^likely /).first()).toBeVisible();
	await page.getByRole('button', { name: /^Out for/ }).press('Enter');
	await expect(page.getByRole('heading', { name: 'Out now' })).toContainText('longest against what is usual first');
	await clean(page, 'the Desk by what is unusual');
	await pressInList(page, 'Guest engagement, A. Dube');
	await page.waitForURL('**/packets/*');
	await expect(page.getByText(/^likely .*(nine times in ten|perhaps much later)/).first()).toBeVisible();
	await clean(page, 'a packet with what is likely');

	await page.goto(`${server.origin}/templates`);
	await ready(page);
	await page.getByRole('link', { name: 'Guest musician engagement', exact: true }).click();
	const course = page.getByRole('region', { name: 'Usual course' });
	await expect(course).toContainText(/Of \d+ sent, half within/);
	await expect(page.getByRole('complementary', { name: 'Template' })).toContainText(/Company manager.*half within/);
	await clean(page, 'the usual course of a template');
	await page.goto(`${server.origin}/desk`);
	await page.locator('li', { hasText: 'Instrument loan, viola no. 3' }).getByRole('link', { name: 'Go on' }).click();
	await ready(page);
	await page.getByRole('button', { name: 'Send…' }).click();
	await expect(page.getByRole('dialog')).toContainText(/It will likely be done|Too few like it|Nobody can say/);
	await clean(page, 'the sheet of sending', { part: '[role=dialog]' });
});

test('where people stumble is counted once the office lets it, and a morning letter is asked for', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings`);
	await ready(page);
	await page.getByRole('checkbox', { name: /Count at which fields/ }).click();
	await page.getByRole('button', { name: 'Save', exact: true }).first().click();
	await expect(page.getByText('Saved.')).toBeVisible();
	const petra = await takesPart(browser, await linkFromMail(page, server, 'p.holub@post.example'));
	const todo = (label: string) => petra.getByRole('listitem').getByRole('button', { name: label }).first();
	await todo('IBAN').click();
	await petra.getByLabel('IBAN', { exact: true }).fill('GB00 BUKB 1');
	await todo('Section').click();
	await todo('IBAN').click();
	await petra.goto(`${server.origin}/stand-ins`);
	const counted = () =>
		server.reading((db) =>
			db.prepare<[], number>("SELECT count(*) FROM field_counts WHERE what = 'refused'").pluck().get()
		);
	await expect.poll(counted).toBe(1);
	await page.goto(`${server.origin}/templates`);
	await ready(page);
	await page.getByRole('link', { name: 'Touring expense claim, from its page', exact: true }).click();
	const stumbles = page.getByRole('region', { name: 'Where people stumble' });
	await expect(stumbles).toContainText(
		/IBAN.*refused \d times \(too many or too few characters\).*turned back to once/
	);
	await clean(page, 'a template at which people stumble');
	await page.goto(`${server.origin}/account`);
	await ready(page);
	await page.getByRole('button', { name: 'Have it sent' }).press('Enter');
	await expect(page.getByText('It comes to your address.')).toBeVisible();
	await clean(page, 'the account with its morning letter');
	await page.getByRole('button', { name: 'End it' }).press('Enter');
	await expect(page.getByText('It does not come.')).toBeVisible();
});

test('the demo’s year, walked through day by day: the forecast holds about as often as it says', () => {
	const all = server.reading((db) => {
		const plans = new Map(
			db
				.prepare<[], { digest: string; json: string }>('SELECT digest, json FROM plans')
				.all()
				.map((row) => [row.digest, row.json])
		);
		const bodies = db.prepare<[string], { body: string }>('SELECT body FROM events WHERE packet = ? ORDER BY n');
		return db
			.prepare<[], { id: string }>("SELECT id FROM packets WHERE status = 'completed'")
			.all()
			.map(({ id }) => ({
				events: bodies.all(id).map(({ body }) => JSON.parse(body) as Recorded),
				plan: (digest: string) => JSON.parse(plans.get(digest)!) as Plan
			}));
	});
	const days = { zone: 'Europe/London', holidays: new Set<string>() };
	const at = (events: Recorded[]) => events.find(({ type }) => type === 'PacketCompleted')!.at;
	let [inside, asked] = [0, 0];
	for (const one of all) {
		const sent = one.events[0]!.at;
		for (let i = 0; i < 60; i++) {
			const now = new Date(Date.parse(sent) + (i + 0.5) * 86_400_000).toISOString();
			if (now >= at(one.events)) break;
			const known = all.flatMap(({ events, plan }) => {
				const past = events.filter((event) => event.at <= now);
				const state = past.length === 0 ? null : fold(past, plan);
				return !state || state.status === 'none' ? [] : countedIn(state, past, '', days);
			});
			const curve = (of: string, facet: string, value: string) =>
				curveOf(
					known
						.filter((wait) => wait.of === of && facetsOf(wait).some(([f, v]) => f === facet && v === value))
						.map(asWait(now))
				);
			const past = one.events.filter((event) => event.at <= now);
			const state = fold(past, one.plan);
			if (state.status === 'none' || !isOpen(state)) continue;
			const seen = forecast(stopsAhead(state, past, now, { curves: curve, days, opens: () => 0.5 }), null);
			if (seen.tooFew || seen.whole.early === null) continue;
			const left = (Date.parse(at(one.events)) - Date.parse(now)) / 86_400_000;
			asked += 1;
			if (left >= seen.whole.early && left <= (seen.whole.late ?? Infinity)) inside += 1;
		}
	}
	expect(asked).toBeGreaterThan(40);
	expect(inside / asked).toBeGreaterThan(0.8);
});

const asWait =
	(now: string) =>
	(wait: CountedWait): Wait => ({
		days: wait.days ?? (Date.parse(now) - Date.parse(wait.began)) / 86_400_000,
		end: wait.how === 'left open' ? null : wait.how
	});
