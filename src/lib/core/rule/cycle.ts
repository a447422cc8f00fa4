/** What depends on what, by name. */
export type Graph = Record<string, string[]>;

/** The first circle in a graph, as the names along it with the first again at the end (`a, b, a`); null where there is none. */
export function findCycle(graph: Graph): string[] | null {
	const done = new Set<string>();
	for (const start of Object.keys(graph)) {
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
