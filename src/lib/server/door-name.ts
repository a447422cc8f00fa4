/** The name of a door in the table: a route's id without the groups that only share a frame, "/(office)/desk" being "/desk". */
export const doorName = <T extends string | null>(route: T): T =>
	(route === null ? null : route.replace(/\/\([a-z]+\)/g, '') || '/') as T;
