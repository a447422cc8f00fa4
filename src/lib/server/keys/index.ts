import type { House } from '../house';
import { keysThere } from './identities';
import { rootsOf } from './trust';

export { checkKeys, keysThere, notaryIdentity, OVERLAP, sealKeys } from './identities';
export { asideName, isAside } from './names';
export { provesUntil, stampsOver, type Proven } from './proving';
export { withdrawKey } from './withdrawing';
export { keyRows, type KeyRow } from './listing';
export { betweenOf } from './between';
export { endMethod } from './ending';
export { METHODS, methods, type Ended } from './methods';
export { addLists, refreshLists, takeInKey, tryKey } from './own';
export { knownNow, METHODS_FILE, rootsOf, trustFiles } from './trust';

/** The root certificates as PEM: what somebody must trust to check Pellum's copies, those of earlier names among them. */
export async function trustedRoots(house: House): Promise<{ name: string; pem: string }[]> {
	await keysThere(house);
	return rootsOf(house.db);
}
