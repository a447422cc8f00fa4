/** What depends on what, by name. */
export type Graph = Record<string, string[]>;

/**
 * The first circle in a graph, as the names along it with the first again at the end (`a, b, a`); null where there is
 * none. With `from` only what can be reached from there is looked at.
 */
export function findCycle(graph: Graph, from?: string): string[] | null {
	const done = new Set<string>();
	for (const start of from === undefined ? Object.keys(graph) : [from]) {
		const found = walk(graph, start, [], done);
		if (found) return found;
	}
	return null;
}

function walk(graph: Graph, at: string, path: string[], done: Set<string>): string[] | null {
	const back = path.indexOf(at);
	if (back >= 0) return [...path.slice(back), at];
	if (done.has(at)) return null;
	for (const next of graph[at] ?? []) {
		const found = walk(graph, next, [...path, at], done);
		if (found) return found;
	}
	done.add(at);
	return null;
}
