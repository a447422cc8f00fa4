/** One entry of a menu: something to do, or somewhere to go. */
export interface MenuEntry {
	name: string;
	/** a second, quieter line */
	note?: string;
	run?: () => unknown;
	/** somewhere to go instead; `download`: a file to keep */
	to?: string;
	download?: boolean;
	/** it ends something for good: set apart, at the end */
	grave?: boolean;
}
