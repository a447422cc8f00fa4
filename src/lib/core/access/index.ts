/** Who may do what with which: the one table that every door and every service asks. */

/** owner: everything; preparer: makes and sends; viewer: sees. */
export const LEVELS = ['owner', 'preparer', 'viewer'] as const;
export type Level = (typeof LEVELS)[number];

/** Somebody of the office. */
export interface Who {
	id: string;
	level: Level;
}

/** to look at it, or to use it without changing it; or to do something to it */
export type Doing = 'see' | 'change';

/** What is asked about, with as much of it as the answer needs. */
export type Thing =
	| { is: 'packet' }
	| { is: 'template'; owner: string; shared: 'owner' | 'chosen' | 'office'; chosen: string[] }
	/** `working`: the template that is being changed in it */
	| { is: 'draft'; owner: string; working: Extract<Thing, { is: 'template' }> | null }
	| { is: 'batch'; owner: string }
	/** a document or a picture: reached through what holds it, never by its digest alone */
	| { is: 'file'; heldBy: Exclude<Thing, { is: 'file' }>[] };

/**
 * Packets are the office's: every level sees them, and who prepares may do what the office does to them. A draft and a batch are
 * their maker's until they are sent. A template is used by those it is shared with and changed by whose it is. A file is seen by
 * whoever may see one of the things that hold it. Owners may do all of this.
 */
export function may(who: Who, doing: Doing, thing: Thing): boolean {
	if (thing.is === 'file') return doing === 'see' && thing.heldBy.some((holder) => may(who, 'see', holder));
	if (who.level === 'owner') return true;
	if (thing.is === 'packet') return doing === 'see' || who.level === 'preparer';
	if (who.level === 'viewer') return false;
	switch (thing.is) {
		case 'draft':
			return thing.working ? may(who, 'change', thing.working) : thing.owner === who.id;
		case 'batch':
			return thing.owner === who.id;
		case 'template':
			if (thing.owner === who.id) return true;
			return (
				doing === 'see' && (thing.shared === 'office' || (thing.shared === 'chosen' && thing.chosen.includes(who.id)))
			);
	}
}

/** At least as much as a level may. */
export const reaches = (level: Level, least: Level): boolean => LEVELS.indexOf(level) <= LEVELS.indexOf(least);
