import { MOST_MEGABYTES } from '../core/field';
import { reaches, type Doing, type Level } from '../core/access';
import type { Kind } from './access';
import type { Account } from './accounts';

/**
 * Who may pass which door: every route by its id, with the least level for looking (GET) and for doing (all else).
 * 'anyone' needs no account; a signing page's own link is judged by its service. A route that is not here is shut.
 */
type Least = Level | 'anyone' | 'nobody';
/** How large a body a door takes that says nothing of it, in bytes. */
const MOST = 256 * 1024;
const MB = 1024 * 1024;

interface Door {
	look: Least;
	do: Least;
	most?: number;
	/** least level for looking where this is not the demo, whose stand-ins are everybody's */
	real?: Level;
	/** what stands behind it, named by the route's own parameter; looking asks whether it may be seen, doing whether changed */
	of?: Kind;
	/** doing asks only whether it may be seen: it is used, not changed */
	uses?: true;
}

/** A door to one of many things says which; signers' links and letters' are their own keys. */
type DoorOf<Route> = Route extends
	| `/s/${string}`
	| `/api/${string}`
	| `/choose/${string}`
	| `/calendar/${string}`
	| `/i/${string}`
	| '/settings/trust/[name]'
	| `/stand-ins/${string}`
	? Door & { of?: never }
	: Route extends `${string}[${string}`
		? Door & { of: Kind }
		: Door;

const table = <T extends { [Route in keyof T]: DoorOf<Route> }>(doors: T): Record<string, Door> => doors;

export const DOORS = table({
	'/': { look: 'viewer', do: 'nobody' },
	// an API key is asked for by what answers here, and what it may with which thing
	'/api/v1/[...path]': { look: 'anyone', do: 'anyone', most: 51 * MB },
	'/api/v1/openapi.json': { look: 'anyone', do: 'nobody' },
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
	'/account/programs': { look: 'viewer', do: 'viewer' },
	'/account/programs/api': { look: 'viewer', do: 'nobody' },
	'/account/passkey': { look: 'nobody', do: 'viewer' },
	'/prove': { look: 'viewer', do: 'viewer' },
	'/prove/passkey': { look: 'nobody', do: 'viewer' },
	'/logo': { look: 'anyone', do: 'nobody' },
	// whoever holds a copy may have it judged: nothing of it is kept
	'/verify': { look: 'anyone', do: 'nobody' },
	'/verify/page': { look: 'nobody', do: 'anyone', most: 51 * MB },
	'/verify/root': { look: 'anyone', do: 'nobody' },
	'/verify/consistency': { look: 'anyone', do: 'nobody' },
	'/health': { look: 'anyone', do: 'nobody' },
	'/live': { look: 'viewer', do: 'nobody' },
	'/find': { look: 'viewer', do: 'nobody' },
	'/desk': { look: 'viewer', do: 'preparer' },
	'/desk/rows': { look: 'viewer', do: 'nobody' },
	'/lists': { look: 'viewer', do: 'viewer' },
	'/bench/[id]': { look: 'preparer', do: 'preparer', of: 'draft' },
	'/bench/[id]/save': { look: 'nobody', do: 'preparer', of: 'draft', most: 2 * MB },
	'/bench/[id]/papers': { look: 'nobody', do: 'preparer', of: 'draft', most: 51 * MB },
	'/bench/[id]/files': { look: 'nobody', do: 'preparer', of: 'draft', most: MOST_MEGABYTES * MB },
	'/bench/[id]/rehearse': { look: 'preparer', do: 'nobody', of: 'draft' },
	'/bench/[id]/likely': { look: 'preparer', do: 'nobody', of: 'draft' },
	'/bench/[id]/send': { look: 'nobody', do: 'preparer', of: 'draft' },
	'/bench/[id]/in-use': { look: 'nobody', do: 'preparer', of: 'draft' },
	'/bench/[id]/pages': { look: 'nobody', do: 'preparer', of: 'draft' },
	'/bench/[id]/recognise': { look: 'preparer', do: 'nobody', of: 'draft' },
	'/bench/code': { look: 'nobody', do: 'preparer' },
	'/bench/[id]/correction': { look: 'nobody', do: 'preparer', of: 'draft' },
	'/bench/[id]/schedule': { look: 'nobody', do: 'preparer', of: 'draft' },
	'/bench/[id]/changes': { look: 'nobody', do: 'preparer', of: 'draft' },
	'/bench/[id]/bin': { look: 'nobody', do: 'preparer', of: 'draft' },
	'/bench/[id]/template': { look: 'nobody', do: 'preparer', of: 'draft' },
	'/bench/new': { look: 'nobody', do: 'preparer' },
	'/papers/[digest]': { look: 'viewer', do: 'nobody', of: 'file' },
	'/papers/[digest]/looks': { look: 'preparer', do: 'preparer', of: 'file', uses: true },
	'/papers/[digest]/reading': { look: 'viewer', do: 'nobody', of: 'file' },
	'/papers/[digest]/source': { look: 'viewer', do: 'nobody', of: 'file' },
	'/papers/[digest]/thumbnail': { look: 'viewer', do: 'nobody', of: 'file' },
	'/pictures/[digest]': { look: 'viewer', do: 'nobody', of: 'file' },
	'/packets/[id]': { look: 'viewer', do: 'preparer', of: 'packet' },
	'/packets/[id]/copies/[what]': { look: 'viewer', do: 'nobody', of: 'packet' },
	'/packets/[id]/link': { look: 'nobody', do: 'preparer', of: 'packet' },
	// who may judge is asked by what answers here, beyond seeing the packet
	'/packets/[id]/identity/[person]': { look: 'preparer', do: 'preparer', of: 'packet' },
	'/packets/[id]/identity/[person]/zip': { look: 'nobody', do: 'preparer', of: 'packet', uses: true },
	'/packets/[id]/identity/[person]/[try]/[side]': { look: 'preparer', do: 'nobody', of: 'packet' },
	'/packets/[id]/paper/[person]': { look: 'viewer', do: 'preparer', of: 'packet' },
	'/packets/[id]/paper/[person]/pdf': { look: 'nobody', do: 'preparer', of: 'packet' },
	'/packets/[id]/paper/[person]/pictures': { look: 'nobody', do: 'preparer', of: 'packet', most: 61 * MB },
	'/packets/[id]/paper/[person]/pictures/[picture]': { look: 'viewer', do: 'preparer', of: 'packet' },
	'/packets/[id]/sign': { look: 'nobody', do: 'viewer', of: 'packet', uses: true },
	'/packets/[id]/amend': { look: 'nobody', do: 'preparer', of: 'packet' },
	'/packets/[id]/holds': { look: 'viewer', do: 'nobody', of: 'packet' },
	'/packets/[id]/template': { look: 'nobody', do: 'preparer', of: 'packet', uses: true },
	'/people': { look: 'viewer', do: 'owner' },
	'/people/held': { look: 'owner', do: 'owner' },
	'/batches': { look: 'preparer', do: 'nobody' },
	'/batches/[id]': { look: 'preparer', do: 'preparer', of: 'batch', most: 11 * MB },
	'/batches/[id]/rows': { look: 'preparer', do: 'nobody', of: 'batch' },
	'/batches/[id]/documents': { look: 'nobody', do: 'preparer', of: 'batch', most: 101 * MB },
	'/batches/[id]/rehearsal': { look: 'preparer', do: 'nobody', of: 'batch' },
	'/batches/[id]/rehearse': { look: 'preparer', do: 'nobody', of: 'batch' },
	'/batches/[id]/sheet': { look: 'preparer', do: 'nobody', of: 'batch' },
	// the address itself is the key
	'/calendar/[token]': { look: 'anyone', do: 'nobody' },
	'/calendar': { look: 'viewer', do: 'nobody' },
	// each answer leaves out what lies in folders that whoever asks doesn't see into
	'/pace': { look: 'viewer', do: 'nobody' },
	'/pace/table': { look: 'viewer', do: 'nobody' },
	'/records': { look: 'viewer', do: 'nobody' },
	'/records/rows': { look: 'viewer', do: 'nobody' },
	// each packet is asked for by what answers here
	'/records/due': { look: 'preparer', do: 'nobody' },
	'/records/compare': { look: 'viewer', do: 'nobody' },
	'/records/dispose': { look: 'nobody', do: 'preparer' },
	'/records/holds': { look: 'preparer', do: 'preparer' },
	'/records/gone': { look: 'preparer', do: 'nobody' },
	'/records/certificate': { look: 'preparer', do: 'nobody' },
	'/records/do': { look: 'nobody', do: 'preparer' },
	'/records/download': { look: 'nobody', do: 'viewer' },
	'/settings': { look: 'viewer', do: 'owner', most: 6 * MB },
	'/settings/holidays': { look: 'viewer', do: 'owner', most: 2 * MB },
	'/settings/identity': { look: 'viewer', do: 'owner' },
	'/settings/keeping': { look: 'viewer', do: 'owner' },
	'/settings/paper': { look: 'viewer', do: 'owner' },
	'/settings/outside': { look: 'viewer', do: 'owner' },
	'/settings/accounts': { look: 'owner', do: 'owner' },
	'/settings/folders': { look: 'owner', do: 'owner' },
	'/settings/signing-in': { look: 'owner', do: 'owner' },
	'/settings/keys': { look: 'owner', do: 'owner', most: 12 * MB },
	'/settings/backups': { look: 'owner', do: 'owner' },
	'/settings/record': { look: 'owner', do: 'nobody' },
	'/settings/about': { look: 'viewer', do: 'nobody' },
	'/settings/trust/[name]': { look: 'viewer', do: 'nobody' },
	'/stand-ins': { look: 'viewer', do: 'preparer', real: 'owner' },
	'/stand-ins/mailbox/[id]': { look: 'viewer', do: 'nobody', real: 'owner' },
	'/stand-ins/mailbox/[id]/letter': { look: 'viewer', do: 'nobody', real: 'owner' },
	// of the demo alone; what comes here comes from Pellum itself, signed
	'/stand-ins/receiver': { look: 'nobody', do: 'anyone', most: 64 * 1024 },
	'/stand-ins/notary': { look: 'viewer', do: 'preparer', real: 'owner' },
	'/stand-ins/notary/[id]': { look: 'viewer', do: 'preparer', real: 'owner', most: 6 * MB },
	'/stand-ins/notary/[id]/journal/[as]': { look: 'viewer', do: 'nobody', real: 'owner' },
	'/stand-ins/witness': { look: 'viewer', do: 'nobody', real: 'owner' },
	'/stand-ins/time-stamp': { look: 'nobody', do: 'owner', most: 16 * 1024 },
	'/templates': { look: 'preparer', do: 'preparer' },
	'/templates/[id]/plan': { look: 'preparer', do: 'nobody', of: 'template' },
	'/templates/[id]/send': { look: 'nobody', do: 'preparer', of: 'template', uses: true, most: MB },
	'/templates/[id]/sheet': { look: 'preparer', do: 'preparer', of: 'template', uses: true, most: 11 * MB },
	'/templates/[id]/use': { look: 'preparer', do: 'nobody', of: 'template' },
	'/templates/join': { look: 'preparer', do: 'nobody' },
	'/templates/joined': { look: 'nobody', do: 'preparer', most: MB },
	'/templates/recent': { look: 'preparer', do: 'nobody' },
	'/texts': { look: 'preparer', do: 'preparer' },
	'/intakes': { look: 'preparer', do: 'preparer' },
	'/intakes/[id]': { look: 'preparer', do: 'preparer', of: 'intake' },
	'/intakes/[id]/save': { look: 'nobody', do: 'preparer', of: 'intake', most: MB },
	'/intakes/[id]/people': { look: 'nobody', do: 'preparer', of: 'intake', most: 11 * MB },
	'/intakes/[id]/cases': { look: 'preparer', do: 'nobody', of: 'intake' },
	'/intakes/[id]/code': { look: 'preparer', do: 'nobody', of: 'intake' },
	'/intakes/[id]/answers': { look: 'preparer', do: 'nobody', of: 'intake' },
	'/intakes/[id]/rows/[follow]': { look: 'preparer', do: 'nobody', of: 'intake' },
	'/intakes/[id]/rehearse': { look: 'preparer', do: 'nobody', of: 'intake' },
	// the page of an intake; a case's own secret, or the word in the address, is the key
	'/i/[slug]': { look: 'anyone', do: 'nobody' },
	'/i/[slug]/begin': { look: 'nobody', do: 'anyone' },
	'/i/[slug]/language': { look: 'nobody', do: 'anyone' },
	'/i/[slug]/[token]': { look: 'anyone', do: 'nobody' },
	'/i/[slug]/[token]/keep': { look: 'nobody', do: 'anyone', most: MB },
	'/i/[slug]/[token]/code': { look: 'nobody', do: 'anyone' },
	'/i/[slug]/[token]/hand-in': { look: 'nobody', do: 'anyone', most: MB },
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
	'/s/[token]/paper/pdf': { look: 'nobody', do: 'anyone' },
	'/s/[token]/paper/pictures': { look: 'nobody', do: 'anyone', most: 61 * MB },
	'/s/[token]/paper/pictures/[id]': { look: 'nobody', do: 'anyone' },
	'/s/[token]/identity': { look: 'nobody', do: 'anyone', most: 20 * MB },
	'/s/[token]/questions': { look: 'nobody', do: 'anyone' },
	'/s/[token]/language': { look: 'nobody', do: 'anyone' },
	'/s/[token]/papers/[paper]': { look: 'anyone', do: 'nobody' },
	'/s/[token]/picture': { look: 'nobody', do: 'anyone', most: 10 * MB },
	'/s/[token]/pictures/[digest]': { look: 'anyone', do: 'nobody' },
	'/s/[token]/reading/[paper]': { look: 'anyone', do: 'nobody' },
	'/s/[token]/changed': { look: 'anyone', do: 'nobody' },
	'/s/[token]/room': { look: 'anyone', do: 'nobody' },
	'/s/[token]/room/calendar': { look: 'anyone', do: 'nobody' },
	'/s/[token]/room/do': { look: 'nobody', do: 'anyone' },
	'/s/[token]/room/now': { look: 'anyone', do: 'nobody' },
	'/s/[token]/seen': { look: 'nobody', do: 'anyone' },
	'/s/[token]/stumbled': { look: 'nobody', do: 'anyone' },
	'/s/[token]/told': { look: 'nobody', do: 'anyone' },
	'/s/[token]/wording': { look: 'nobody', do: 'anyone' }
});

export type Passage = 'open' | 'sign-in' | 'shut';

const doorOf = (route: string | null): Door | null =>
	route !== null && Object.hasOwn(DOORS, route) ? DOORS[route]! : null;
const looks = (method: string): boolean => method === 'GET' || method === 'HEAD';

/** Whether this caller may pass. 'sign-in' where an account might; 'shut' where this one may not. */
export function passage(route: string | null, method: string, account: Account | null, demo: boolean): Passage {
	const door = doorOf(route);
	if (!door) return 'shut';
	const least = looks(method) ? door.look : door.do;
	if (least === 'anyone') return 'open';
	if (least === 'nobody') return 'shut';
	if (!account) return 'sign-in';
	return reaches(account.level, door.real && !demo ? door.real : least) ? 'open' : 'shut';
}

/** What the table of access is to be asked for whoever passes this door; null where it opens nothing of anybody's. */
export function askedAt(
	route: string | null,
	method: string,
	params: Partial<Record<string, string>>
): { doing: Doing; kind: Kind; id: string } | null {
	const door = doorOf(route);
	const id = params['id'] ?? params['digest'];
	if (!door?.of || !id) return null;
	return { doing: looks(method) || door.uses ? 'see' : 'change', kind: door.of, id };
}

/** How many bytes of body a route takes at most. */
export function mostAt(route: string | null): number {
	return (route !== null && Object.hasOwn(DOORS, route) && DOORS[route]!.most) || MOST;
}
