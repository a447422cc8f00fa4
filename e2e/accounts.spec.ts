import { expect, test, type Page } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';
import { directoryEnv, startDirectory } from '../demo/directory';
import { PASSWORD } from '../demo/password';
import { clean } from './kit/axe';
import { choose, fromMenu } from './kit/parts';
import { drafted, sends } from './kit/draft';
import { ready, Server, signIn } from './kit/server';

const CHOSEN = 'marmalade under seven bridges';
const server = new Server();
let directory: Awaited<ReturnType<typeof startDirectory>>;
test.beforeAll(async () => {
	directory = await startDirectory(server.port + 1000, server.origin);
	Object.assign(server.env, directoryEnv(server.port + 1000));
	await server.seed('accounts').start();
});
test.afterAll(async () => {
	directory.closeAllConnections();
	directory.close();
	await server.stop();
});

const shown = (secret: string, steps = 0) =>
	new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + steps * 30_000 });

/** The link in the newest letter to somebody, from the database as a mail program would show it. */
async function letterLink(to: string): Promise<string> {
	for (let i = 0; i < 60; i++) {
		const text = server.reading((db) =>
			db.prepare('SELECT text FROM mailbox WHERE recipient = ? ORDER BY id DESC LIMIT 1').pluck().get(to)
		);
		const link = /http\S+\/choose\/[\w-]{43}/.exec(String(text ?? ''))?.[0];
		if (link) return link;
		await new Promise((go) => setTimeout(go, 250));
	}
	throw new Error(`no letter to ${to} came`);
}

async function enter(page: Page, email: string, password: string): Promise<void> {
	await page.goto(`${server.origin}/sign-in`);
	await ready(page);
	await page.getByLabel('E-mail').fill(email);
	await page.getByLabel('Password').fill(password);
	await page.getByRole('button', { name: 'Sign in' }).click();
}

test('invited by a letter, a password of their own, a second factor; what they did stands in the office’s record', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings/accounts`);
	await ready(page);
	await clean(page, 'accounts');
	const invite = page.getByRole('region', { name: 'Invite somebody' });
	await invite.getByLabel('Name').fill('Wilma Strand');
	await invite.getByLabel('E-mail').fill('wilma@brindlevale.example');
	await invite.getByRole('button', { name: 'Invite' }).click();
	await expect(page.getByText('wilma@brindlevale.example gets a letter.')).toBeVisible();

	const hers = await (await browser.newContext()).newPage();
	const link = await letterLink('wilma@brindlevale.example');
	await hers.goto(link);
	await ready(hers);
	await clean(hers, 'choosing');
	await hers.getByLabel('Password').fill('wilmastrand1');
	await hers.getByRole('button', { name: 'Choose it' }).click();
	await expect(hers.getByRole('alert')).toContainText('too easy to guess');
	await hers.getByLabel('Password').fill(CHOSEN);
	await hers.getByRole('button', { name: 'Choose it' }).click();
	await expect(hers.getByText('Your password is chosen')).toBeVisible();
	expect((await hers.goto(link))?.status()).toBe(404);
	await enter(hers, 'wilma@brindlevale.example', CHOSEN);
	await hers.getByRole('heading', { name: 'Out now' }).waitFor();

	await hers.goto(`${server.origin}/account`);
	await ready(hers);
	await clean(hers, 'the account');
	await hers.getByRole('button', { name: 'Set up codes' }).click();
	const secret = (await hers.getByText(/^([A-Z2-7]{4} ){7}[A-Z2-7]{4}$/).innerText()).replaceAll(' ', '');
	await hers.getByLabel('The code it shows now').fill(shown(secret));
	await hers.getByRole('button', { name: 'Ask for codes from now on' }).click();
	await expect(hers.getByRole('list', { name: 'Recovery codes' }).getByRole('listitem')).toHaveCount(10);

	const again = await (await browser.newContext()).newPage();
	await enter(again, 'wilma@brindlevale.example', CHOSEN);
	await again.getByRole('heading', { name: 'One more step' }).waitFor();
	expect((await again.request.get(`${server.origin}/find?q=x`)).status()).toBe(401);
	await ready(again);
	await clean(again, 'the second step');
	await again.getByLabel('The code your device shows').fill('000000');
	await again.getByRole('button', { name: 'Go on' }).click();
	await expect(again.getByRole('alert')).toContainText('not the code');
	// the next one, which is also good should the time be over before it is sent
	await again.getByLabel('The code your device shows').fill(shown(secret, 1));
	await again.getByRole('button', { name: 'Go on' }).click();
	await again.getByRole('heading', { name: 'Out now' }).waitFor();
	await again.goto(`${server.origin}/account`);
	await ready(again);
	await again.getByRole('button', { name: 'End all others' }).click();
	await expect(again.getByRole('button', { name: 'End all others' })).toHaveCount(0);
	await hers.goto(`${server.origin}/desk`);
	await expect(hers).toHaveURL(/sign-in/);

	await page.goto(`${server.origin}/settings/record`);
	await ready(page);
	await clean(page, 'the office’s record');
	for (const said of [
		'Invited Wilma Strand, wilma@brindlevale.example, as preparer.',
		'Wilma Strand chose a password by the link in a letter.',
		'Was not let in: wrong code. (Wilma Strand)',
		'Signed in by password and code.'
	])
		await expect(page.getByText(said).first()).toBeVisible();
	await expect(page.getByText('Ended a session of Wilma Strand.')).toBeVisible();
});

test('a password forgotten: a letter to whoever has an account, the same page for whoever has none', async ({
	page
}) => {
	for (const who of ['ruben@brindlevale.example', 'nobody@brindlevale.example']) {
		await page.goto(`${server.origin}/forgot`);
		await ready(page);
		await page.getByLabel('E-mail').fill(who);
		await page.getByRole('button', { name: 'Send the letter' }).click();
		await expect(page.getByText(`If ${who} has an account here`)).toBeVisible();
	}
	await clean(page, 'a forgotten password');
	await page.goto(await letterLink('ruben@brindlevale.example'));
	await ready(page);
	await page.getByLabel('Password').fill(CHOSEN);
	await page.getByRole('button', { name: 'Choose it' }).click();
	await expect(page.getByText('Your password is chosen')).toBeVisible();
	await enter(page, 'ruben@brindlevale.example', PASSWORD);
	await expect(page.getByRole('alert')).toContainText('do not go together');
	expect(
		server.reading((db) => db.prepare("SELECT count(*) FROM mailbox WHERE recipient LIKE 'nobody%'").pluck().get())
	).toBe(0);
});

test('what keeps others out wants a proof of the last minutes; a wanted factor comes before everything else', async ({
	page
}) => {
	await signIn(page, server);
	server.writing((db) => db.prepare("UPDATE sessions SET proved_at = '2020-01-01T00:00:00.000Z'").run());
	await page.goto(`${server.origin}/settings/signing-in`);
	await ready(page);
	await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled();
	const cookie = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
	const forced = await fetch(`${server.origin}/settings/signing-in`, {
		method: 'POST',
		body: new URLSearchParams({ 'idle-hours': '1', 'longest-days': '1' }),
		headers: { cookie, origin: server.origin, accept: 'text/html' }
	});
	expect(forced.status).toBe(403);
	// another name of the organisation makes other keys, so it asks as well
	const renamed = await fetch(`${server.origin}/settings?/organisation`, {
		method: 'POST',
		body: new URLSearchParams({ name: 'Somebody Else', colour: '#224466', zone: 'Europe/London' }),
		headers: { cookie, origin: server.origin, accept: 'application/json', 'x-sveltekit-action': 'true' }
	});
	expect(await renamed.text()).toContain('wants a proof');
	expect(
		server.reading((db) => db.prepare("SELECT value FROM meta WHERE key = 'organisation'").pluck().get())
	).not.toContain('Somebody Else');
	await page.getByRole('link', { name: 'Show that it’s you' }).click();
	await page.waitForURL('**/prove**');
	await ready(page);
	await clean(page, 'the proof');
	await page.getByLabel('Password').fill(PASSWORD);
	await page.getByRole('button', { name: 'Go on' }).click();
	await page.waitForURL('**/settings/signing-in');
	await ready(page);
	await clean(page, 'signing in');
	await page.getByLabel('owners').check();
	await page.getByRole('button', { name: 'Save' }).click();
	// it holds for whoever has set it, too
	await expect(page).toHaveURL(/\/account$/);
	await page.goto(`${server.origin}/desk`);
	await expect(page).toHaveURL(/\/account$/);
	await expect(page.getByText('Your level wants a second factor')).toBeVisible();
	expect((await page.request.get(`${server.origin}/find?q=x`)).status()).toBe(403);
	server.writing((db) => db.prepare("DELETE FROM meta WHERE key = 'safety'").run());
});

test('through the office’s directory: levels by its claims, nobody it doesn’t vouch for', async ({ browser }) => {
	const through = async (name: string) => {
		const page = await (await browser.newContext()).newPage();
		await page.goto(`${server.origin}/sign-in`);
		await ready(page);
		await page.getByRole('link', { name: 'Go through the directory (stand-in)' }).click();
		await page.getByRole('link', { name }).click();
		return page;
	};
	const juno = await through('Juno Abernathy');
	await juno.getByRole('heading', { name: 'Out now' }).waitFor();
	await expect(juno.getByLabel('Juno Abernathy, preparer')).toBeVisible();
	const odile = await through('Odile Farrow');
	await expect(odile.getByLabel('Odile Farrow, owner')).toBeVisible();
	await odile.goto(`${server.origin}/settings/record`);
	await expect(
		odile.getByText('Juno Abernathy, juno@brindlevale.example, came from the directory as preparer.')
	).toBeVisible();
	expect(
		server.reading((db) => db.prepare("SELECT count(*) FROM accounts WHERE name LIKE 'Odile%'").pluck().get())
	).toBe(1);
	await expect((await through('Piet Solano')).getByText('gives you no level here')).toBeVisible();
	await expect((await through('Odd One')).getByText('does not vouch')).toBeVisible();
	// an answer that this browser has not asked for
	const other = await (await browser.newContext()).newPage();
	await other.goto(`${server.origin}/sign-in/directory/back?code=x&state=y`);
	await expect(other.getByText('did not say who you are')).toBeVisible();
});

test('a passkey signs in alone, is the second factor, and the proof', async ({ browser }) => {
	const near = new Server({});
	near.env['ORIGIN'] = near.origin.replace('127.0.0.1', 'localhost');
	Object.assign(near, { origin: near.env['ORIGIN'] });
	await near.seed('accounts').start();
	const page = await (await browser.newContext()).newPage();
	const device = await page.context().newCDPSession(page);
	await device.send('WebAuthn.enable');
	const { authenticatorId } = await device.send('WebAuthn.addVirtualAuthenticator', {
		options: {
			protocol: 'ctap2',
			transport: 'internal',
			hasResidentKey: true,
			hasUserVerification: true,
			isUserVerified: true,
			automaticPresenceSimulation: true
		}
	});
	await signIn(page, near);
	await page.goto(`${near.origin}/account`);
	await ready(page);
	await page.getByLabel('Called').fill('office laptop');
	await page.getByRole('button', { name: 'Add a passkey' }).click();
	await expect(page.getByText('office laptop')).toBeVisible();
	await page.context().clearCookies();
	await page.goto(`${near.origin}/sign-in`);
	await ready(page);
	await page.getByRole('button', { name: 'Use a passkey' }).click();
	await page.getByRole('heading', { name: 'Out now' }).waitFor();

	await page.context().clearCookies();
	await page.goto(`${near.origin}/sign-in`);
	await ready(page);
	await page.getByLabel('E-mail').fill('odile@brindlevale.example');
	await page.getByLabel('Password').fill(PASSWORD);
	await page.getByRole('button', { name: 'Sign in', exact: true }).click();
	await page.getByRole('heading', { name: 'One more step' }).waitFor();
	await ready(page);
	await device.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false });
	await page.getByRole('button', { name: 'Use a passkey' }).click();
	await expect(page.getByText('It was called off')).toBeVisible();
	await device.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: true });
	await page.getByRole('button', { name: 'Use a passkey' }).click();
	await page.getByRole('heading', { name: 'Out now' }).waitFor();

	near.writing((db) => db.prepare("UPDATE sessions SET proved_at = '2020-01-01T00:00:00.000Z'").run());
	await page.goto(`${near.origin}/prove?to=/account`);
	await ready(page);
	await page.getByRole('button', { name: 'Use a passkey' }).click();
	await page.waitForURL('**/account');
	await ready(page);
	await page.getByRole('button', { name: 'Remove the passkey office laptop' }).click();
	await expect(page.getByText('office laptop')).toHaveCount(0);
	await near.stop();
});

test('backups: how often and how many is kept, one is made by hand and stands in the list', async ({ page }) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings/backups`);
	await ready(page);
	await expect(page.getByText('None yet.')).toBeVisible();
	await page.getByLabel('So many are kept').fill('3');
	await page.getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('Saved.')).toBeVisible();
	await page.getByRole('button', { name: 'Make one now' }).click();
	await expect(page.getByText('It is being made')).toBeVisible();
	await expect(async () => {
		await page.reload();
		await expect(page.getByText(/pellum-.*\.db/)).toBeVisible({ timeout: 1000 });
	}).toPass({ timeout: 240_000 });
	await expect(page.getByLabel('So many are kept')).toHaveValue('3');
});

test('an account is given another level, signed out everywhere, loses its second factor and is closed', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	const theirs = await (await browser.newContext()).newPage();
	await signIn(theirs, server, 'tamsin');
	server.writing((db) => db.prepare("UPDATE accounts SET totp = 'x' WHERE name = 'Tamsin Okoro'").run());
	await page.goto(`${server.origin}/settings/accounts`);
	await ready(page);
	const row = page.getByRole('listitem').filter({ hasText: 'Tamsin Okoro' });
	await expect(row).toContainText('with a second factor');
	const change = row.getByRole('button', { name: 'Change the account of' });
	await fromMenu(change, /^Make viewer/);
	await expect(row).toContainText('sees (viewer)');
	await theirs.goto(`${server.origin}/templates`);
	await expect(theirs.getByText('Your account may not do this.')).toBeVisible();
	await fromMenu(change, 'Take the second factor away');
	await expect(row).not.toContainText('with a second factor');
	await fromMenu(change, 'Sign them out everywhere');
	await expect(row.getByRole('alert')).toHaveText('Signed out everywhere.');
	await theirs.goto(`${server.origin}/desk`);
	await expect(theirs).toHaveURL(/sign-in/);
	await fromMenu(change, 'Close the account');
	await expect(row).toContainText('closed');
	await enter(theirs, 'tamsin@brindlevale.example', PASSWORD);
	await expect(theirs.getByRole('alert')).toBeVisible();
	await theirs.context().close();
	server.writing((db) =>
		db.prepare("UPDATE accounts SET closed_at = NULL, level = 'preparer' WHERE name = 'Tamsin Okoro'").run()
	);
});

test('a folder closed by an owner: its packets are its members’, a packet moves into it and out of others’ sight', async ({
	page,
	browser
}) => {
	await signIn(page, server);
	await page.goto(`${server.origin}/settings/folders`);
	await ready(page);
	await expect(page.getByText('There is no folder yet.')).toBeVisible();
	await page.getByRole('region', { name: 'Make a folder' }).getByLabel('Name').fill('Claims');
	await page.getByRole('button', { name: 'Make it' }).click();
	const claims = page.getByRole('listitem', { name: 'Claims' });
	await expect(claims).toContainText('Open to the whole office · 0 packets, 0 templates');
	await claims.getByRole('button', { name: 'Close to all but members' }).click();
	await expect(claims).toContainText('only owners of the office see into it');
	await clean(page, 'folders');

	await drafted(page, server, { title: 'Claim of the tour', stops: [['kit']] });
	await page.getByText('How it is filed').click();
	await choose(page.getByLabel('Folder'), 'Claims');
	await sends(page);
	const packet = page.url();
	await expect(page.getByText('Folder Claims')).toBeVisible();

	const hers = await (await browser.newContext()).newPage();
	await signIn(hers, server, 'tamsin');
	await hers.goto(packet);
	await expect(hers.getByText('There is nothing here, or it is not yours to see.')).toBeVisible();
	await hers.goto(`${server.origin}/desk`);
	await expect(hers.getByRole('main')).not.toContainText('Claim of the tour');

	// out of it again, and the record says who moved it
	await ready(page);
	await page.getByRole('button', { name: 'Move…' }).click();
	await choose(page.getByLabel('Into the folder'), 'none, the whole office’s');
	await page.getByRole('button', { name: 'Move it' }).click();
	await expect(page.getByText('It was taken out of the folder “Claims”. By Odile Farrow.')).toBeVisible();
	await hers.goto(packet);
	await expect(hers.getByRole('heading', { name: 'Claim of the tour' })).toBeVisible();

	// made a member, she sees into it
	await page.getByRole('button', { name: 'Move…' }).click();
	await choose(page.getByLabel('Into the folder'), 'Claims');
	await page.getByRole('button', { name: 'Move it' }).click();
	await expect(page.getByText('Folder Claims')).toBeVisible();
	await page.goto(`${server.origin}/settings/folders`);
	await ready(page);
	await choose(page.getByLabel('What Tamsin Okoro may in Claims'), 'sees and prepares');
	await expect(page.getByLabel('What Tamsin Okoro may in Claims')).toHaveText('sees and prepares');
	await page.goto(`${server.origin}/settings/record`);
	await expect(page.getByText('Folder “Claims”: Tamsin Okoro prepares in it.')).toBeVisible();
	await hers.reload();
	await expect(hers.getByRole('heading', { name: 'Claim of the tour' })).toBeVisible();
	await hers.context().close();
});
