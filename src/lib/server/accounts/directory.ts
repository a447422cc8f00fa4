import * as oidc from 'openid-client';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { DirectoryConfig, House } from '../house';
import { logOf } from '../log';
import { note } from '../office-record';
import { isAddress } from '../../core/packet';
import { LEVELS, type Account, type Level } from './levels';
import { accountByEmail, changeLevel, insertAccount } from './people';
import { beginSession, provedIn } from './sessions';
import type { From } from './sign-in';

/**
 * Signing in through the office's own directory: OpenID Connect Core 1.0, authorization code with PKCE (RFC 7636), state and
 * nonce. Who may do what comes from a claim; a second factor is the directory's to ask for.
 */
const log = logOf('directory');

/** What was begun and has not come back: kept by its state, which a cookie of the same browser must name. */
const begun = new Map<string, { verifier: string; nonce: string; to: string; prove: boolean; until: number }>();
const MINUTES = 10;
const MOST_BEGUN = 10_000;
/** How long the directory may take for one answer, in seconds. */
const PATIENCE = 10;

const AWAY = refuse(
	'directory-away',
	'The directory does not answer at the moment. Try again, or sign in by password.'
);
const NO = refuse('directory-no', 'The directory did not say who you are. Try again.');

const known = new WeakMap<DirectoryConfig, Promise<oidc.Configuration>>();

/** What the directory says of itself; asked once, and again where that failed. */
function directory(config: DirectoryConfig): Promise<oidc.Configuration> {
	let found = known.get(config);
	if (!found) {
		// without TLS only to this machine itself, for the stand-in
		const near = /^http:\/\/(127\.0\.0\.1|localhost|\[::1\])(:|\/|$)/.test(config.issuer);
		found = oidc.discovery(new URL(config.issuer), config.client, config.secret, undefined, {
			timeout: PATIENCE,
			...(near && { execute: [oidc.allowInsecureRequests] })
		});
		found.catch(() => known.delete(config));
		known.set(config, found);
	}
	return found;
}

const backTo = (house: House): string => `${house.config.origin}/sign-in/directory/back`;

/** Where the browser goes to, and the state that its cookie keeps. `prove` asks whoever is signed in there to show it anew. */
export async function toDirectory(
	house: House,
	to: string,
	prove: boolean
): Promise<{ url: string; state: string } | Refusal> {
	const config = house.config.directory;
	if (!config) return refuse('no-directory', 'This Pellum has no directory.');
	try {
		const there = await directory(config);
		const [state, nonce, verifier] = [oidc.randomState(), oidc.randomNonce(), oidc.randomPKCECodeVerifier()];
		const now = Date.now();
		for (const [old, { until }] of begun) if (until < now || begun.size >= MOST_BEGUN) begun.delete(old);
		begun.set(state, { verifier, nonce, to, prove, until: now + MINUTES * 60_000 });
		const url = oidc.buildAuthorizationUrl(there, {
			redirect_uri: backTo(house),
			scope: config.scope,
			state,
			nonce,
			code_challenge: await oidc.calculatePKCECodeChallenge(verifier),
			code_challenge_method: 'S256',
			...(prove && { prompt: 'login', max_age: '0' })
		});
		return { url: url.href, state };
	} catch (error) {
		log.error(error, 'the directory could not be reached');
		return AWAY;
	}
}

/**
 * Somebody has come back from the directory: a session's token, and where they wanted to go.
 * @param state what this browser's cookie says
 * @param own the session that wants a proof, '' where somebody signs in
 */
export async function fromDirectory(
	house: House,
	url: URL,
	state: string,
	from: From,
	own: { token: string; account: string } | null
): Promise<{ token: string; to: string } | Refusal> {
	const config = house.config.directory;
	const one = begun.get(state);
	begun.delete(state);
	if (!config || !one || one.until < Date.now()) return NO;
	let claims: Record<string, unknown>;
	try {
		const there = await directory(config);
		const current = new URL(`${backTo(house)}${url.search}`);
		const tokens = await oidc.authorizationCodeGrant(there, current, {
			pkceCodeVerifier: one.verifier,
			expectedState: state,
			expectedNonce: one.nonce,
			idTokenExpected: true,
			...(one.prove && { maxAge: 60 })
		});
		const told = tokens.claims()!;
		claims = { ...(await oidc.fetchUserInfo(there, tokens.access_token, told.sub)), ...told };
	} catch (error) {
		log.warn(error, 'the directory’s answer did not hold');
		return NO;
	}
	const account = inTransaction(house.db, () => accountFor(house, config, claims, from));
	if (isRefusal(account)) {
		note(house, { account: null, address: from.address }, { type: 'SignInRefused', account: null, why: 'directory' });
		return account;
	}
	if (one.prove) {
		if (own?.account !== account.id) return refuse('other-account', 'The directory knows you as somebody else.');
		return { token: provedIn(house, own.token, from), to: one.to };
	}
	note(house, { account, address: from.address }, { type: 'SignedIn', how: 'directory' });
	return { token: beginSession(house, account.id, from, false), to: one.to };
}

/** The level that the claims give: the highest of those that fit. */
export function levelFrom(config: DirectoryConfig, claims: Record<string, unknown>): Level | null {
	const given = config.levels
		.filter(({ claim, value }) => [claims[claim]].flat().includes(value))
		.map(({ level }) => LEVELS.indexOf(level));
	return given.length > 0 ? LEVELS[Math.min(...given)]! : null;
}

/** By the directory's own name for them, then by an address that it vouches for; made where a level is given and none is there. */
function accountFor(
	house: House,
	config: DirectoryConfig,
	claims: Record<string, unknown>,
	from: From
): Account | Refusal {
	const text = (name: string) => (typeof claims[name] === 'string' ? claims[name] : '');
	const subject = `${config.issuer} ${text('sub')}`;
	const [email, name] = [text('email').trim().toLowerCase(), text('name').slice(0, 120)];
	const bySubject = house.db
		.prepare<[string], Account & { closed: number }>(
			'SELECT id, name, email, level, closed_at IS NOT NULL AS closed FROM accounts WHERE subject = ?'
		)
		.get(subject);
	if (bySubject?.closed) return refuse('closed', 'Your account here is closed. Ask an owner.');
	const vouched = claims['email_verified'] === true && isAddress(email);
	const found = bySubject ?? (vouched ? accountByEmail(house.db, email) : null);
	const level = levelFrom(config, claims);
	if (!level) return refuse('no-level', 'The directory gives you no level here. Ask whoever keeps it.');
	if (!found) {
		if (!vouched) return refuse('no-address', 'The directory does not vouch for your e-mail address.');
		if (house.db.prepare('SELECT 1 FROM accounts WHERE email = ?').get(email))
			return refuse('closed', 'Your account here is closed. Ask an owner.');
		const wanted = { name: name || email, email, level };
		return insertAccount(house, { account: null, address: from.address }, wanted, 'directory', { subject });
	}
	house.db.prepare('UPDATE accounts SET subject = ? WHERE id = ?').run(subject, found.id);
	const { id, name: called, email: address } = found;
	// the last owner stays one, whatever the directory says
	const kept = changeLevel(house, { account: found, address: from.address }, id, level);
	return { id, name: called, email: address, level: kept ? found.level : level };
}
