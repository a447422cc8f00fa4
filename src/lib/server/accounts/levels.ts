/** owner: everything; preparer: makes and sends; viewer: sees. */
export const LEVELS = ['owner', 'preparer', 'viewer'] as const;
export type Level = (typeof LEVELS)[number];

export interface Account {
	id: string;
	name: string;
	email: string;
	level: Level;
}
