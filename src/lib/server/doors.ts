import { MOST_MEGABYTES } from '../core/field';
import { LEVELS, type Account, type Level } from './accounts';

/**
 * Who may pass which door: every route by its id, with the least level for looking (GET) and for doing (all else).
 * 'anyone' needs no account; a signing page's own link is judged by its service. A route that is not here is shut.
 */
type Least = Level | 'anyone' | 'nobody';
/** How large a body a door takes that says nothing of it, in bytes. */
const MOST = 256 * 1024;
const MB = 1024 * 1024;

export const DOORS: Record<string, { look: Least; do: Least; most?: number }> = {
	'/': { look: 'viewer', do: 'nobody' },
	'/sign-in': { look: 'anyone', do: 'anyone' },
	'/sign-in/second': { look: 'anyone', do: 'anyone' },
	'/sign-in/passkey': { look: 'nobody', do: 'anyone' },
	'/sign-in/directory': { look: 'anyone', do: 'nobody' },
	'/sign-in/directory/back': { look: 'anyone', do: 'nobody' },
	'/forgot': { look: 'anyone', do: 'anyone' },
	'/choose/[token]': { look: 'anyone', do: 'anyone' },
	'/set-up': { look: 'anyone', do: 'anyone' },
	'/sign-out': { look: 'nobody', do: 'viewer' },
	'/account': { look: 'viewer', do: 'viewer' },
	'/account/passkey': { look: 'nobody', do: 'viewer' },
	'/prove': { look: 'viewer', do: 'viewer' },
	'/prove/passkey': { look: 'nobody', do: 'viewer' },
	'/logo': { look: 'anyone', do: 'nobody' },
	'/live': { look: 'viewer', do: 'nobody' },
	'/find': { look: 'viewer', do: 'nobody' },
	'/desk': { look: 'viewer', do: 'preparer' },
	'/bench/[id]': { look: 'preparer', do: 'preparer' },
	'/bench/[id]/save': { look: 'nobody', do: 'preparer', most: 2 * MB },
	'/bench/[id]/papers': { look: 'nobody', do: 'preparer', most: 51 * MB },
	'/bench/[id]/files': { look: 'nobody', do: 'preparer', most: MOST_MEGABYTES * MB },
	'/bench/[id]/rehearse': { look: 'preparer', do: 'nobody' },
	'/bench/[id]/send': { look: 'nobody', do: 'preparer' },
	'/bench/[id]/in-use': { look: 'nobody', do: 'preparer' },
	'/bench/[id]/pages': { look: 'nobody', do: 'preparer' },
	'/bench/[id]/recognise': { look: 'preparer', do: 'nobody' },
	'/bench/code': { look: 'nobody', do: 'preparer' },
	'/bench/[id]/correction': { look: 'nobody', do: 'preparer' },
	'/bench/[id]/schedule': { look: 'nobody', do: 'preparer' },
	'/bench/[id]/template': { look: 'nobody', do: 'preparer' },
	'/bench/new': { look: 'nobody', do: 'preparer' },
	'/papers/[digest]': { look: 'viewer', do: 'nobody' },
	'/papers/[digest]/looks': { look: 'preparer', do: 'preparer' },
	'/papers/[digest]/reading': { look: 'viewer', do: 'nobody' },
	'/papers/[digest]/source': { look: 'viewer', do: 'nobody' },
	'/papers/[digest]/thumbnail': { look: 'viewer', do: 'nobody' },
	'/pictures/[digest]': { look: 'viewer', do: 'nobody' },
	'/packets/[id]': { look: 'viewer', do: 'preparer' },
	'/packets/[id]/copies/[what]': { look: 'viewer', do: 'nobody' },
	'/packets/[id]/link': { look: 'nobody', do: 'preparer' },
	'/packets/[id]/sign': { look: 'nobody', do: 'viewer' },
	'/packets/[id]/template': { look: 'nobody', do: 'preparer' },
	'/people': { look: 'viewer', do: 'nobody' },
	'/batches': { look: 'preparer', do: 'nobody' },
	'/batches/[id]': { look: 'preparer', do: 'preparer', most: 6 * MB },
	'/batches/[id]/sheet': { look: 'preparer', do: 'nobody' },
	'/calendar': { look: 'viewer', do: 'nobody' },
	'/records': { look: 'viewer', do: 'nobody' },
	'/settings': { look: 'viewer', do: 'owner', most: 6 * MB },
	'/settings/accounts': { look: 'owner', do: 'owner' },
	'/settings/signing-in': { look: 'owner', do: 'owner' },
	'/settings/record': { look: 'owner', do: 'nobody' },
	'/settings/trust/[name]': { look: 'viewer', do: 'nobody' },
	'/stand-ins': { look: 'viewer', do: 'preparer' },
	'/stand-ins/mailbox/[id]': { look: 'viewer', do: 'nobody' },
	'/stand-ins/mailbox/[id]/letter': { look: 'viewer', do: 'nobody' },
	'/stand-ins/time-stamp': { look: 'nobody', do: 'anyone', most: 16 * 1024 },
	'/templates': { look: 'preparer', do: 'preparer' },
	'/templates/[id]/plan': { look: 'preparer', do: 'nobody' },
	'/templates/[id]/send': { look: 'nobody', do: 'preparer', most: MB },
	'/templates/[id]/sheet': { look: 'nobody', do: 'preparer', most: 6 * MB },
	'/templates/[id]/use': { look: 'preparer', do: 'nobody' },
	'/templates/join': { look: 'preparer', do: 'nobody' },
	'/templates/joined': { look: 'nobody', do: 'preparer', most: MB },
	'/templates/recent': { look: 'preparer', do: 'nobody' },
	'/texts': { look: 'preparer', do: 'preparer' },
	'/s/[token]': { look: 'anyone', do: 'nobody' },
	'/s/[token]/answers': { look: 'nobody', do: 'anyone', most: MB },
	'/s/[token]/code': { look: 'nobody', do: 'anyone' },
	'/s/[token]/consent': { look: 'nobody', do: 'anyone' },
	'/s/[token]/copies/[what]': { look: 'anyone', do: 'nobody' },
	'/s/[token]/decline': { look: 'nobody', do: 'anyone' },
	'/s/[token]/files': { look: 'nobody', do: 'anyone', most: MOST_MEGABYTES * MB },
	'/s/[token]/files/[digest]': { look: 'anyone', do: 'nobody' },
	'/s/[token]/finish': { look: 'nobody', do: 'anyone', most: MB },
	'/s/[token]/guest': { look: 'nobody', do: 'anyone' },
	'/s/[token]/hand-over': { look: 'nobody', do: 'anyone' },
	'/s/[token]/language': { look: 'nobody', do: 'anyone' },
	'/s/[token]/papers/[paper]': { look: 'anyone', do: 'nobody' },
	'/s/[token]/picture': { look: 'nobody', do: 'anyone', most: 10 * MB },
	'/s/[token]/pictures/[digest]': { look: 'anyone', do: 'nobody' },
	'/s/[token]/reading/[paper]': { look: 'anyone', do: 'nobody' },
	'/s/[token]/seen': { look: 'nobody', do: 'anyone' },
	'/s/[token]/told': { look: 'nobody', do: 'anyone' },
	'/s/[token]/wording': { look: 'nobody', do: 'anyone' }
};

export type Passage = 'open' | 'sign-in' | 'shut';

/** Whether this caller may pass. 'sign-in' where an account might; 'shut' where this one may not. */
export function passage(route: string | null, method: string, account: Account | null): Passage {
	const door = route !== null && Object.hasOwn(DOORS, route) ? DOORS[route]! : null;
	if (!door) return 'shut';
	const least = method === 'GET' || method === 'HEAD' ? door.look : door.do;
	if (least === 'anyone') return 'open';
	if (least === 'nobody') return 'shut';
	if (!account) return 'sign-in';
	return LEVELS.indexOf(account.level) <= LEVELS.indexOf(least) ? 'open' : 'shut';
}

/** How many bytes of body a route takes at most. */
export function mostAt(route: string | null): number {
	return (route !== null && Object.hasOwn(DOORS, route) && DOORS[route]!.most) || MOST;
}
