import type { Level } from '../../core/access';

export { LEVELS, type Level } from '../../core/access';

export interface Account {
	id: string;
	name: string;
	email: string;
	level: Level;
	/** the name of the API key by which another program comes for them */
	key?: string;
}
