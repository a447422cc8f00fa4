import { X509Certificate } from 'node:crypto';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import {
	certificatesOf,
	commonName,
	firstEndOf,
	listAddresses,
	listIn,
	listsOf,
	newest,
	nextUpdateOf,
	organisationIn,
	readOwnInWorker,
	trySealInWorker,
	type Identity
} from '../../press';
import type { House } from '../house';
import { BY_ITSELF, note, type Doer } from '../office-record';
import { fetchOutside } from '../outside';
import { keysThere, ownIdentity, sealWithOwn } from './identities';
import { keepLists } from './kept';
import { endOf } from './proving';
import { writeTrust } from './trust';

/** A certificate that an authority gave: taken in with its key, tried before use, its lists kept new. */

interface OwnKey {
	file: Uint8Array;
	password: string;
	more: Uint8Array[];
}

/** What somebody sees before they seal with it. */
export interface Tried {
	of: string;
	/** from the nearest authority to the root */
	chain: string[];
	/** ISO 8601 */
	until: string;
	/** when the first of the lists ends; null: none does */
	lists: string | null;
}

/** Reads it and seals a sheet with it, as every packet would be, which has to be genuine. Refuses with what is wrong. */
export async function tryKey(house: House, wanted: OwnKey): Promise<{ identity: Identity; tried: Tried } | Refusal> {
	const identity = await readOwnInWorker({ ...wanted, now: house.now().toISOString() });
	if (isRefusal(identity)) return identity;
	const { stamp } = await keysThere(house);
	const verdict = await trySealInWorker({ keys: { seal: identity, stamp }, now: house.now().toISOString() });
	const wrong = verdict.checks.find(({ ok }) => !ok);
	if (wrong) return refuse('seal-not-genuine', `A sheet that was sealed with it is not genuine: ${wrong.say}`, 'file');
	return {
		identity,
		tried: {
			of: organisationIn(identity.certificate) || 'nobody by name',
			chain: certificatesOf(identity)
				.slice(1)
				.map((one) => commonName(new X509Certificate(one).subject)),
			until: new Date(endOf(identity)).toISOString(),
			lists: firstEndOf(identity)?.toISOString() ?? null
		}
	};
}

/** Tries it once more, and seals with it from now on. */
export async function takeInKey(house: House, by: Doer, wanted: OwnKey): Promise<Tried | Refusal> {
	const came = await tryKey(house, wanted);
	if (isRefusal(came)) return came;
	await sealWithOwn(house, by, came.identity);
	return came.tried;
}

/** Takes newer lists of the certificate that seals, whichever authorities they are of. Refuses where none of them is. */
export function addLists(house: House, by: Doer, lists: Uint8Array[]): { until: string | null } | Refusal {
	const own = ownIdentity(house);
	if (!own) return refuse('no-own-key', 'No certificate that was taken in seals just now.');
	const read = lists.flatMap((bytes) => listIn(bytes) ?? []);
	const newer = (authority: Uint8Array, crl: Uint8Array) =>
		newest([crl, ...read], new X509Certificate(authority))?.der ?? crl;
	const next: Identity = {
		...own,
		crl: newer(own.issuer, own.crl),
		between: (own.between ?? []).map((one) => ({ ...one, crl: newer(one.certificate, one.crl) }))
	};
	if (listsOf(next).every((crl, i) => crl === listsOf(own)[i]))
		return refuse('no-newer-list', 'None of these is a newer list of its authorities.', 'more');
	keepLists(house, next);
	writeTrust(house);
	const until = firstEndOf(next)?.toISOString() ?? null;
	note(house, by, { type: 'ListsRenewed', until: until?.slice(0, 10) ?? 'further notice' });
	return { until };
}

/** A list is fetched anew when less than this is left of it, in ms. */
const LEFT = 2 * 86_400_000;

/** Fetches newer lists from where the authorities put them, before those that are here end. */
export async function refreshLists(house: House): Promise<void> {
	const own = ownIdentity(house);
	if (!own) return;
	const certificates = certificatesOf(own);
	const soon = house.now().getTime() + LEFT;
	const fetched: Uint8Array[] = [];
	for (const [i, list] of listsOf(own).entries()) {
		if ((nextUpdateOf(list)?.getTime() ?? Infinity) > soon) continue;
		for (const address of listAddresses(certificates[i]!)) {
			const came = await fetchOutside(house, address);
			if (came) fetched.push(came);
		}
	}
	if (fetched.length > 0) addLists(house, BY_ITSELF, fetched);
}
