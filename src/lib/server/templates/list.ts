import type { Thread } from '../../core/packet';
import type { Plan } from '../../core/packet';
import { roleName } from '../../core/template';
import type { Account } from '../accounts';
import type { House } from '../house';
import { MAY_SEE, seer } from './seeing';

export interface TemplateRow {
	id: string;
	title: string;
	description: string;
	folder: string;
	owner: string;
	mine: boolean;
	shared: string;
	version: number;
	/** somebody is changing it */
	changing: boolean;
	uses: number;
	lastUsedAt: string | null;
	changedAt: string;
	/** its roles as a thread, every stop still to come */
	thread: Thread;
}

export const SHOWN = ['all', 'mine', 'shared', 'bin'] as const;
export type Shown = (typeof SHOWN)[number];

export interface Wanted {
	show: Shown;
	folder?: string;
	search?: string;
	most?: number;
}

interface Row extends Omit<TemplateRow, 'thread' | 'mine' | 'changing'> {
	ownerId: string;
	plan: string | null;
	working: string | null;
}

/** Templates this account may use, the most recently used first. */
export function listTemplates(house: House, account: Account, wanted: Wanted): TemplateRow[] {
	const { show, folder = '', search = '', most = MOST } = wanted;
	const rows = house.db
		.prepare<Record<string, string | number>, Row>(
			`SELECT t.id, t.title, t.description, t.folder, a.name AS owner, t.owner AS ownerId, t.shared, t.version, t.uses,
			 t.last_used_at AS lastUsedAt, t.changed_at AS changedAt, t.plan, d.plan AS working
			 FROM templates t JOIN accounts a ON a.id = t.owner
			 LEFT JOIN drafts d ON d.template = t.id
			 WHERE (t.binned_at IS NOT NULL) = (@show = 'bin')
			 AND ${MAY_SEE}
			 AND (@show <> 'mine' OR t.owner = @me) AND (@show <> 'shared' OR t.owner <> @me)
			 AND (@folder = '' OR t.folder = @folder)
			 AND ${FOUND}
			 ORDER BY coalesce(t.last_used_at, t.changed_at) DESC LIMIT @most`
		)
		.all({
			show,
			...seer(house.db, account),
			folder,
			...likeness(search),
			most
		});
	return rows.map(({ plan, working, ownerId, ...row }) => ({
		...row,
		mine: ownerId === account.id,
		changing: working !== null,
		thread: plan ? roles(house, plan) : threadOf(working)
	}));
}

/** That a template has what is searched for, see {@link likeness}. */
const FOUND = `(@search = '' OR t.title LIKE @like ESCAPE '!' OR t.description LIKE @like ESCAPE '!')`;

/** What is searched for, and the pattern that finds it anywhere; its own signs are no wildcards. */
function likeness(search: string): { search: string; like: string } {
	return { search: search.trim(), like: `%${search.trim().replace(/[!%_]/g, '!$&')}%` };
}

/** A house has tens of templates, hundreds at most. */
const MOST = 500;

/** The roles of plans by their digests: a plan never changes, and is large. */
const rolesOf = new Map<string, Thread>();

function roles({ db }: House, digest: string): Thread {
	const known = rolesOf.get(digest);
	if (known) return known;
	const json = db.prepare<[string], string>('SELECT json FROM plans WHERE digest = ?').pluck().get(digest);
	const thread = threadOf(json ?? null);
	if (rolesOf.size > 2000) rolesOf.clear();
	rolesOf.set(digest, thread);
	return thread;
}

function threadOf(json: string | null): Thread {
	if (json === null) return [];
	const plan = JSON.parse(json) as Plan;
	return plan.stops.map((stop) =>
		stop.people.flatMap((id) => {
			const person = plan.people.find((p) => p.id === id);
			return person
				? [{ id, name: roleName(person), duty: person.duty, standing: 'waiting' as const, since: null }]
				: [];
		})
	);
}

/** Templates in use that this account may use, by name, the most recently used first: without looking into their plans. */
export function templateNames(
	house: House,
	account: Account,
	{ search = '', most }: { search?: string; most: number }
): { id: string; title: string; folder: string }[] {
	return house.db
		.prepare<Record<string, string | number>, { id: string; title: string; folder: string }>(
			`SELECT t.id, t.title, t.folder FROM templates t
			 WHERE t.binned_at IS NULL AND t.version > 0 AND ${MAY_SEE} AND ${FOUND}
			 ORDER BY coalesce(t.last_used_at, t.changed_at) DESC LIMIT @most`
		)
		.all({ ...seer(house.db, account), ...likeness(search), most });
}

/** Every folder that has a template in it which this account may use, by name. */
export function foldersOf(house: House, account: Account): string[] {
	return house.db
		.prepare<Record<string, string | number>, string>(
			`SELECT DISTINCT t.folder FROM templates t
			 WHERE t.folder <> '' AND t.binned_at IS NULL AND ${MAY_SEE} ORDER BY t.folder`
		)
		.pluck()
		.all(seer(house.db, account));
}
