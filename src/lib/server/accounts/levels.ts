import type { Level } from '../../core/access';

export { LEVELS, type Level } from '../../core/access';

export interface Account {
	id: string;
	name: string;
	email: string;
	level: Level;
}
