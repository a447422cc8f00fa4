import { cutText } from '../../core/clean-text';
import { firstEndOf, makeIdentity, organisationIn, suiteOf, type Identity, type SealKeys } from '../../press';
import { inTransaction } from '../db';
import type { House } from '../house';
import { BY_ITSELF, note, type Doer } from '../office-record';
import { organisation } from '../settings';
import { keep, putAside, stored, type Stored } from './kept';
import { hashNow, methods } from './methods';
import { nameInWords, useOf, type KeyName } from './names';
import { endOf } from './proving';
import { writeTrust } from './trust';

/** The keys that seal, stamp and notarise: made when they are needed, and anew before they end. */

/** One after the other for each database, so that two who seal at once don't make two keys. */
const making = new WeakMap<object, Promise<unknown>>();

/**
 * The keys that seal now, made when first asked for; after the organisation has another name, new ones under that name, the
 * old ones kept for what they have sealed. Throws where PELLUM_KEY is not the one they were locked with, and where the revocation
 * list of a certificate that was taken in has ended, as nobody would believe what it seals.
 */
export async function sealKeys(house: House): Promise<SealKeys> {
	const keys = await keysThere(house);
	const own = ownIdentity(house);
	if (own) checkLists(house, own);
	return keys;
}

/** As {@link sealKeys}, for what doesn't seal: also where a list has ended. */
export function keysThere(house: House): Promise<SealKeys> {
	return inTurn(house, async () => ({
		seal: await identityNamed(house, 'seal', organisation(house.db).name),
		stamp: await identityNamed(house, 'stamp', 'Pellum stand-in')
	}));
}

/** The key of a notary of the stand-in, made when first asked for, and anew under another name. */
export const notaryIdentity = (house: House, id: string, name: string): Promise<Identity> =>
	identityNamed(house, `notary-${id}`, name);

/** One after the other. */
export function inTurn<T>(house: House, work: () => Promise<T>): Promise<T> {
	const next = (making.get(house.db) ?? Promise.resolve()).catch(() => {}).then(work);
	making.set(house.db, next);
	return next;
}

/** Looks at start whether the keys that there are can be unlocked; makes none, as nobody may have named the organisation yet. */
export function checkKeys(house: House): void {
	// one that was restored without its key only serves to check what it has sealed
	for (const { name, bare } of house.db
		.prepare<[], { name: string; bare: number }>('SELECT name, length(locked_key) = 0 AS bare FROM keys ORDER BY name')
		.all())
		if (bare === 0) stored(house, name);
	writeTrust(house);
}

/** So long before its certificate ends another one takes its place: until then either is good. */
export const OVERLAP = 2 * 365.25 * 86_400_000;

/** What signs under this name, until its certificate is near its end; what signed before is kept for what it has signed. */
async function identityNamed(house: House, name: KeyName, of: string): Promise<Identity> {
	const now = stored(house, name);
	if (now && !stillSigns(house, now, of)) putAside(house, name);
	return identity(house, name, of);
}

function stillSigns(house: House, now: Stored, of: string): boolean {
	const time = house.now().getTime();
	// one that was taken in names its owner as its authority wrote them, and ends when that says so
	if (now.own) {
		const ended = methods(house.db)[suiteOf(now).hash];
		return time < endOf(now) && !(ended && Date.parse(ended) <= time);
	}
	return (
		organisationIn(now.certificate) === cutText(of, 64) &&
		endOf(now) - time >= OVERLAP &&
		suiteOf(now).hash === hashNow(house.db)
	);
}

/** A seal whose list has ended would not be believed by anybody: better none until there is a newer one. */
function checkLists(house: House, own: Identity): void {
	const end = firstEndOf(own);
	if (end && end < house.now())
		throw new Error(
			'The revocation list of the certificate that was taken in has ended. Add a newer one under Settings, Keys; then it goes on.'
		);
}

async function identity(house: House, name: KeyName, of: string): Promise<Identity> {
	const there = stored(house, name);
	if (there) return there;
	const made = await makeIdentity(of, useOf(name), house.now(), hashNow(house.db));
	keep(house, name, { ...made, own: false });
	note(house, BY_ITSELF, { type: 'KeysMade', key: nameInWords(name), of });
	writeTrust(house);
	return made;
}

/** Seals with this certificate from now on; what sealed before is kept for what it has sealed. */
export function sealWithOwn(house: House, by: Doer, own: Identity): Promise<void> {
	return inTurn(house, async () => {
		inTransaction(house.db, () => {
			if (stored(house, 'seal')) putAside(house, 'seal');
			keep(house, 'seal', { ...own, rootKey: null, own: true });
			note(house, by, { type: 'KeyTakenIn', of: organisationIn(own.certificate) || 'nobody by name' });
		});
		writeTrust(house);
	});
}

/** The certificate that was taken in and seals now; null where one that was made here does. */
export function ownIdentity(house: House): Identity | null {
	const now = stored(house, 'seal');
	return now?.own ? now : null;
}
