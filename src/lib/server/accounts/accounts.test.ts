import { scryptSync } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import { describe, expect, it, vi } from 'vitest';
import { account, FROM, mails, ok, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { checkData } from '../check';
import { memoryDb } from '../db';
import { houseOf } from '../house';
import { note, officeEvents, sentenceOf } from '../office-record';
import { officeFaults } from '../office-record/whole';
import { levelFrom } from './directory';
import { hashPassword, passwordFits } from './password';
import {
	accountOfLink,
	addAccount,
	addFirstOwner,
	askReset,
	beginCodes,
	changeLevel,
	changePassword,
	chooseByLink,
	closeAccount,
	endSessions,
	finishSignIn,
	inviteAccount,
	newCodes,
	proveAgain,
	removeFactors,
	sessionOf,
	sessionsOf,
	setSafety,
	setUpCode,
	signIn,
	signOut,
	type Account
} from '.';

const GOOD = 'long enough for us';
const OTHER = 'marmalade under seven bridges';
const tokenOf = async (t: TestHouse, email: string, password = GOOD): Promise<string> =>
	ok(await signIn(t.house, email, password, FROM));
const by = (one: Account) => ({ account: one, address: FROM.address });
const letterTo = async (t: TestHouse, to: string): Promise<string> => {
	await t.runner.drain();
	return /\/choose\/([\w-]{43})/.exec(mails(t.house, to).at(-1)!.text)![1]!;
};
const told = (t: TestHouse) => officeEvents(t.house.db).map((event) => event.type);
/** The code a device shows so many steps from now. */
const shown = (secret: string, steps = 0) =>
	new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + steps * 30_000 });

describe('accounts', () => {
	it('open with the right password only, and close', async () => {
		const t = await testHouse();
		const { house, odile } = t;
		expect(await signIn(house, odile.email, 'wrong password', FROM)).toMatchObject({ code: 'wrong-password' });
		expect(await signIn(house, 'nobody@x.example', GOOD, FROM)).toMatchObject({ code: 'wrong-password' });
		const token = await tokenOf(t, ' ODILE@brindlevale.example');
		expect(sessionOf(house, token)).toMatchObject({ account: odile, wants: null, proved: true });
		expect(sessionOf(house, `${token}x`)).toBeNull();
		signOut(house, token, by(odile));
		expect(sessionOf(house, token)).toBeNull();
		expect(closeAccount(house, by(odile), odile.id)).toMatchObject({ code: 'last-owner' });
		expect(changeLevel(house, by(odile), odile.id, 'viewer')).toMatchObject({ code: 'last-owner' });
		const ruben = await account(house, 'Ruben', 'ruben@brindlevale.example', 'viewer');
		const his = await tokenOf(t, ruben.email);
		expect(changeLevel(house, by(odile), ruben.id, 'preparer')).toBeNull();
		expect(sessionOf(house, his)!.account.level).toBe('preparer');
		expect(closeAccount(house, by(odile), ruben.id)).toBeNull();
		expect(sessionOf(house, his)).toBeNull();
		expect(await signIn(house, ruben.email, GOOD, FROM)).toMatchObject({ code: 'wrong-password' });
		expect(told(t).slice(0, 3)).toEqual(['SignInRefused', 'AccountClosed', 'LevelChanged']);
		expect(officeEvents(house.db)[1]).toMatchObject({
			by: { name: 'Odile Farrow' },
			address: FROM.address,
			name: 'Ruben'
		});
	});
	it.each([
		['', 'x@y.example', GOOD, 'no-name'],
		['X', 'nothing', GOOD, 'bad-address'],
		['X', 'ODILE@brindlevale.example', GOOD, 'address-taken'],
		['X', 'x@y.example', 'eleven char', 'short-password'],
		['X', 'x@y.example', 'x'.repeat(513), 'long-password'],
		['X', 'x@y.example', 'password1234', 'easy-password'],
		['X', 'x@y.example', 'aaaaaaaaaaaaaaaa', 'easy-password'],
		['Petronella Quist', 'pq@x.example', 'petronellaquist', 'easy-password'],
		['X', 'tamsin.okoro@x.example', 'Tamsin.Okoro.1', 'easy-password']
	])('refuse %j %j %j: %s', async (name, email, password, code) => {
		const { house } = await testHouse();
		expect(await addAccount(house, { name, email, password, level: 'viewer' })).toMatchObject({ code });
	});
	it('take 512 characters, none of them cut', async () => {
		const t = await testHouse();
		const long = Array.from({ length: 64 }, (_, i) => `wörd${String(i).padStart(3, '0')}`).join(' ');
		expect([...long].length).toBe(511);
		ok(await addAccount(t.house, { name: 'X', email: 'x@y.example', password: long, level: 'viewer' }));
		expect(await signIn(t.house, 'x@y.example', long.slice(0, -1), FROM)).toMatchObject({ code: 'wrong-password' });
		await tokenOf(t, 'x@y.example', long);
	});
	it('are kept with what they cost, which is what OWASP asks for; those from before it was written down still fit', async () => {
		const key = scryptSync(GOOD, 'a salt of sixteen', 32, { N: 2 ** 17, r: 8, p: 1, maxmem: 2 ** 28 }).toString(
			'base64'
		);
		const before = `${Buffer.from('a salt of sixteen').toString('base64')}$${key}`;
		expect(await passwordFits(GOOD, before)).toBe(true);
		expect(await passwordFits(`${GOOD}!`, before)).toBe(false);
		expect(await passwordFits(GOOD, await hashPassword(GOOD))).toBe(true);
		vi.stubEnv('PELLUM_PUBLISHED_PASSWORDS', '');
		const again = './password?as it ships';
		const { hashPassword: hash } = (await import(again)) as { hashPassword: typeof hashPassword };
		vi.unstubAllEnvs();
		expect(await hash(GOOD)).toMatch(/^17\$/);
	});
	it('begin with one owner, who shows the code, however many try at once', async () => {
		const house = houseOf(memoryDb(), { folder: '', origin: '', key: '', demo: false, smtp: null, mailFrom: '' });
		const first = (n: number, code: string) =>
			addFirstOwner(house, code, { name: `N${n}`, email: `n${n}@x.example`, password: GOOD });
		expect(await first(0, 'AAAAA-BBBBB')).toMatchObject({ code: 'wrong-code' });
		const all = await Promise.all([1, 2, 3, 4, 5].map((n) => first(n, setUpCode(house).toLowerCase())));
		expect(all.filter((one) => !('refused' in one))).toHaveLength(1);
		expect(house.db.prepare('SELECT count(*) AS n FROM accounts').get()).toEqual({ n: 1 });
		expect(await first(6, setUpCode(house))).toMatchObject({ code: 'set-up' });
	});
	it('are judged a few at a time, ten tries from an address; a burst tells the record once of being stopped', async () => {
		const t = await testHouse();
		const from = { address: '198.51.100.7', device: '' };
		const tried = await Promise.all(
			Array.from({ length: 40 }, () => signIn(t.house, 'odile@brindlevale.example', 'wrong password', from))
		);
		const codes = tried.map((one) => (typeof one === 'string' ? 'in' : one.code));
		expect(codes.filter((code) => code === 'wrong-password')).toHaveLength(10);
		expect(codes.filter((code) => code === 'too-often')).toHaveLength(30);
		expect(officeEvents(t.house.db).filter((event) => 'why' in event && event.why === 'too often')).toHaveLength(1);
	});
	it('keep neither passwords nor tokens, secrets nor codes', async () => {
		const t = await testHouse();
		const token = await tokenOf(t, t.odile.email);
		const { secret } = await newCodes(t.house, t.odile);
		const recovery = ok(beginCodes(t.house, by(t.odile), t.odile, secret, shown(secret)));
		askReset(t.house, '', t.odile.email);
		const link = await letterTo(t, t.odile.email);
		const all = ['accounts', 'sessions', 'recovery_codes', 'account_links', 'office_events', 'jobs']
			.map((table) => JSON.stringify(t.house.db.prepare(`SELECT * FROM ${table}`).all()))
			.join();
		for (const kept of [GOOD, token, secret, recovery[0]!, recovery[0]!.replace('-', ''), link])
			expect(all).not.toContain(kept);
	});
});

describe('letters', () => {
	it('invite: the link lets choose a password once, and nobody told it', async () => {
		const t = await testHouse();
		const made = ok(inviteAccount(t.house, by(t.odile), { name: 'Juno', email: 'Juno@x.example', level: 'preparer' }));
		expect(await signIn(t.house, made.email, '', FROM)).toMatchObject({ code: 'wrong-password' });
		const link = await letterTo(t, 'juno@x.example');
		expect(await chooseByLink(t.house, '', link, 'short')).toMatchObject({ code: 'short-password' });
		expect(await chooseByLink(t.house, '', 'x'.repeat(43), OTHER)).toMatchObject({ code: 'no-link' });
		ok(await chooseByLink(t.house, '', link, OTHER));
		expect(await chooseByLink(t.house, '', link, GOOD)).toMatchObject({ code: 'no-link' });
		expect(sessionOf(t.house, await tokenOf(t, made.email, OTHER))!.account.level).toBe('preparer');
		await t.runner.drain();
		expect(mails(t.house, 'juno@x.example').at(-1)!.subject).toContain('has been changed');
	});
	it('reset: a link of an hour; sessions and other links end; an address without an account gets nothing', async () => {
		const t = await testHouse();
		const token = await tokenOf(t, t.odile.email);
		askReset(t.house, '', 'nobody@x.example');
		askReset(t.house, '', t.odile.email);
		const first = await letterTo(t, t.odile.email);
		askReset(t.house, '', t.odile.email);
		const second = await letterTo(t, t.odile.email);
		expect(mails(t.house).map((mail) => mail.recipient)).toEqual([t.odile.email, t.odile.email]);
		expect(accountOfLink(t.house, first)).toMatchObject({ code: 'no-link' });
		t.house.db.prepare("UPDATE account_links SET expires_at = '2020-01-01T00:00:00.000Z'").run();
		expect(accountOfLink(t.house, second)).toMatchObject({ code: 'no-link' });
		askReset(t.house, '', t.odile.email);
		ok(await chooseByLink(t.house, '', await letterTo(t, t.odile.email), OTHER));
		expect(sessionOf(t.house, token)).toBeNull();
		await tokenOf(t, t.odile.email, OTHER);
	});
	it('that come back stand in the office’s record', async () => {
		const t = await testHouse();
		ok(inviteAccount(t.house, by(t.odile), { name: 'Gone', email: 'gone@post.example', level: 'viewer' }));
		await t.runner.drain();
		expect(told(t)).toContain('LetterRefused');
	});
});

describe('sessions', () => {
	it('end on a change of the password, but for the one that changed it', async () => {
		const t = await testHouse();
		const [here, there] = [await tokenOf(t, t.odile.email), await tokenOf(t, t.odile.email)];
		const mine = { account: t.odile, address: '' };
		const change = (before: string, now: string) =>
			changePassword(t.house, mine, sessionOf(t.house, here)!.id, before, now);
		expect(await change('wrong password', OTHER)).toMatchObject({ code: 'wrong-password' });
		expect(await change(GOOD, 'password1234')).toMatchObject({ code: 'easy-password' });
		expect(await change(GOOD, OTHER)).toBeNull();
		expect([sessionOf(t.house, here) !== null, sessionOf(t.house, there)]).toEqual([true, null]);
	});
	it('are listed, and end by themselves: unused, old, by hand', async () => {
		const t = await testHouse();
		const { house, odile } = t;
		const chromium = {
			...FROM,
			device: 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 Chrome/130.0.0.0 Safari/537.36'
		};
		const token = ok(await signIn(house, odile.email, GOOD, chromium));
		expect(sessionsOf(house.db, odile.id)).toMatchObject([{ device: 'Chrome on Linux', address: FROM.address }]);
		ok(setSafety(house, by(odile), { second: [], idleHours: 1, longestDays: 1 }));
		const set = (column: string, hours: number) =>
			house.db.prepare(`UPDATE sessions SET ${column} = ?`).run(new Date(Date.now() + hours * 3_600_000).toISOString());
		set('seen_at', -0.9);
		expect(sessionOf(house, token)).not.toBeNull();
		expect(sessionsOf(house.db, odile.id)[0]!.seenAt > new Date(Date.now() - 5000).toISOString()).toBe(true);
		set('seen_at', -1.1);
		expect(sessionOf(house, token)).toBeNull();
		const other = await tokenOf(t, odile.email);
		set('created_at', -25);
		expect(sessionOf(house, other)).toBeNull();
		set('created_at', -23);
		expect(sessionOf(house, other)).not.toBeNull();
		set('expires_at', -0.1);
		expect(sessionOf(house, other)).toBeNull();
		await tokenOf(t, odile.email);
		expect(endSessions(house, by(odile), odile, { except: '' })).toBeGreaterThan(0);
		expect(sessionsOf(house.db, odile.id)).toEqual([]);
	});
});

describe('a second factor', () => {
	it('stands between the password and everything; each code is good once', async () => {
		const t = await testHouse();
		const { house, odile } = t;
		const { secret, picture } = await newCodes(house, odile);
		expect(picture).toMatch(/^data:image\/png;base64,/);
		expect(beginCodes(house, by(odile), odile, secret, '000000')).toMatchObject({ code: 'wrong-code' });
		const recovery = ok(beginCodes(house, by(odile), odile, secret, shown(secret)));
		expect(recovery).toHaveLength(10);
		const half = await tokenOf(t, odile.email);
		expect(sessionOf(house, half)).toMatchObject({ wants: 'second', proved: false });
		const finish = (token: string, code: string) => finishSignIn(house, token, odile, FROM, { code });
		expect(await finish(half, shown(secret, 5))).toMatchObject({ code: 'wrong-code' });
		const code = shown(secret, 1);
		const whole = ok(await finish(half, code));
		expect([sessionOf(house, half), sessionOf(house, whole)!.wants]).toEqual([null, null]);
		const again = await tokenOf(t, odile.email);
		expect(await finish(again, code)).toMatchObject({ code: 'wrong-code' });
		ok(await finish(again, recovery[0]!.toLowerCase()));
		const third = await tokenOf(t, odile.email);
		expect(await finish(third, recovery[0]!)).toMatchObject({ code: 'wrong-code' });
		expect(officeEvents(house.db).find((event) => event.type === 'SignedIn')).toMatchObject({
			second: 'recovery code'
		});
		removeFactors(house, by(odile), odile);
		expect(sessionOf(house, await tokenOf(t, odile.email))!.wants).toBeNull();
	});
	it('is tried ten times at most', async () => {
		const t = await testHouse();
		const ruben = await account(t.house, 'Ruben', 'ruben@x.example', 'viewer');
		const { secret } = await newCodes(t.house, ruben);
		ok(beginCodes(t.house, by(ruben), ruben, secret, shown(secret)));
		const half = await tokenOf(t, ruben.email);
		for (let i = 0; i < 10; i++) await finishSignIn(t.house, half, ruben, FROM, { code: '000000' });
		expect(await finishSignIn(t.house, half, ruben, FROM, { code: shown(secret, 1) })).toMatchObject({
			code: 'too-often'
		});
	});
	it('is wanted by level, and a proof grows old', async () => {
		const t = await testHouse();
		const { house, odile } = t;
		expect(setSafety(house, by(odile), { second: ['nobody'], idleHours: 0, longestDays: 99 })).toMatchObject({
			code: 'malformed'
		});
		ok(setSafety(house, by(odile), { second: ['owner'], idleHours: 12, longestDays: 7 }));
		const token = await tokenOf(t, odile.email);
		expect(sessionOf(house, token)!.wants).toBe('set-up');
		house.db.prepare('UPDATE sessions SET proved_at = ?').run(new Date(Date.now() - 11 * 60_000).toISOString());
		expect(sessionOf(house, token)!.proved).toBe(false);
		const prove = (password: string) => proveAgain(house, token, odile, FROM, { password, code: '' });
		expect(await prove('wrong password')).toMatchObject({ code: 'wrong-password' });
		expect(await prove(GOOD)).toBeNull();
		expect(sessionOf(house, token)!.proved).toBe(true);
	});
});

describe('the directory', () => {
	const config = {
		issuer: 'https://d.example',
		client: '',
		secret: '',
		name: '',
		scope: '',
		levels: [
			{ claim: 'groups', value: 'staff', level: 'preparer' as const },
			{ claim: 'groups', value: 'heads', level: 'owner' as const },
			{ claim: 'role', value: 'guest', level: 'viewer' as const }
		]
	};
	it.each([
		[{ groups: ['staff', 'heads'] }, 'owner'],
		[{ groups: 'staff' }, 'preparer'],
		[{ groups: ['x'], role: 'guest' }, 'viewer'],
		[{ groups: ['stafff'], role: ['x'] }, null],
		[{}, null]
	])('gives %j %s', (claims, level) => expect(levelFrom(config, claims)).toBe(level));
});

describe('the office’s record', () => {
	it('is a chain in which nothing can be changed, left out or run backwards', async () => {
		const t = await testHouse();
		for (const name of ['a', 'b', 'c'])
			note(t.house, by(t.odile), { type: 'SettingsChanged', what: name, from: { x: 1 }, to: { x: 2, y: '' } });
		t.clock.now -= 3_600_000;
		note(t.house, by(t.odile), { type: 'SignedOut' });
		expect(officeFaults(t.house.db)).toEqual([]);
		expect(checkData(t.house.db).faults).toEqual([]);
		const [last, before] = officeEvents(t.house.db);
		expect(last!.at).toBe(before!.at);
		expect(sentenceOf(before!)).toBe('Changed c: x from 1 to 2, y from nothing to nothing.');
		const { db } = t.house;
		expect(() => db.prepare("UPDATE office_events SET body = '{}' WHERE n = 2").run()).toThrow('never changed');
		expect(() => db.prepare('DELETE FROM office_events').run()).toThrow('never deleted');
		db.exec('DROP TRIGGER office_events_stay; DROP TRIGGER office_events_last');
		db.prepare("UPDATE office_events SET body = replace(body, 'Odile', 'Zoë') WHERE n = 2").run();
		expect(checkData(db).faults).toEqual([expect.stringContaining('event 2 does not follow')]);
		db.prepare('DELETE FROM office_events WHERE n = 2').run();
		expect(officeFaults(db)).toHaveLength(1);
	});
});
