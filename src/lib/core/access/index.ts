/** Who may do what with which: the one table that every door and every service asks. */

/** owner: everything; preparer: makes and sends; viewer: sees. */
export const LEVELS = ['owner', 'preparer', 'viewer'] as const;
export type Level = (typeof LEVELS)[number];

/** What a member of a closed folder may in it, each more than the one before; never more than their level. */
export const POWERS = ['sees', 'prepares', 'judges'] as const;
export type Power = (typeof POWERS)[number];

/** The members of a closed folder, by account; null where it is open to the office, each by their level, or there is none. */
export type Members = Record<string, Power> | null;

/** Somebody of the office. */
export interface Who {
	id: string;
	level: Level;
	email: string;
}

/** to look at it, or to use it without changing it; to do something to it; to decide on what is held for its sake */
export type Doing = 'see' | 'change' | 'judge';

/** What is asked about, with as much of it as the answer needs. */
export type Thing =
	/** `people`: the addresses of those who take part */
	| { is: 'packet'; owner: string; people: string[]; members: Members }
	| { is: 'template'; owner: string; shared: 'owner' | 'chosen' | 'office'; chosen: string[]; members: Members }
	/** `working`: the template that is being changed in it */
	| { is: 'draft'; owner: string; working: Extract<Thing, { is: 'template' }> | null }
	| { is: 'batch'; owner: string }
	| { is: 'intake'; owner: string }
	/** a document or a picture: reached through what holds it, never by its digest alone */
	| { is: 'file'; heldBy: Exclude<Thing, { is: 'file' }>[] };

/**
 * A packet in no folder, or in an open one, is the office's: every level sees it, and who prepares may do what the office does to
 * it. One in a closed folder is its members'; its sender still has it, and somebody of the office who takes part still sees it. A
 * draft and a batch are their maker's until they are sent. A template is used by those it is shared with, of a closed folder by
 * those who prepare in it, and changed by whose it is. A file is seen by whoever may see one of the things that hold it. Owners
 * may do all of this.
 */
export function may(who: Who, doing: Doing, thing: Thing): boolean {
	if (thing.is === 'file') return doing === 'see' && thing.heldBy.some((holder) => may(who, 'see', holder));
	if (who.level === 'owner') return true;
	if (thing.is === 'packet') return mayWithPacket(who, doing, thing);
	if (who.level === 'viewer') return false;
	switch (thing.is) {
		case 'draft':
			return thing.working ? may(who, 'change', thing.working) : thing.owner === who.id;
		case 'batch':
		case 'intake':
			return thing.owner === who.id;
		case 'template': {
			if (thing.owner === who.id) return true;
			const among = thing.shared === 'office' ? mayIn(who, 'prepares', thing.members) : thing.chosen.includes(who.id);
			return doing === 'see' && thing.shared !== 'owner' && among;
		}
	}
}

function mayWithPacket(who: Who, doing: Doing, { owner, people, members }: Extract<Thing, { is: 'packet' }>): boolean {
	const own = owner === who.id;
	switch (doing) {
		case 'see':
			return (
				mayIn(who, 'sees', members) || own || people.some((email) => email.toLowerCase() === who.email.toLowerCase())
			);
		case 'change':
			return who.level !== 'viewer' && (own || mayIn(who, 'prepares', members));
		case 'judge':
			return mayIn(who, 'judges', members);
	}
}

/** Whether somebody has at least this power in a folder of these members. */
export function mayIn({ id, level }: Pick<Who, 'id' | 'level'>, least: Power, members: Members): boolean {
	if (level === 'owner') return true;
	if (level === 'viewer' && least !== 'sees') return false;
	if (members === null) return true;
	const power = Object.hasOwn(members, id) ? members[id]! : null;
	return power !== null && POWERS.indexOf(power) >= POWERS.indexOf(least);
}

/** At least as much as a level may. */
export const reaches = (level: Level, least: Level): boolean => LEVELS.indexOf(level) <= LEVELS.indexOf(least);
