/** A packet of a chain: what was agreed first, or one of its amendments. */
export interface Link {
	id: string;
	reference: string;
	title: string;
	/** what it changes; null: it is the first */
	amends: string | null;
	status: string;
	/** when it was completed, ISO 8601 */
	at: string | null;
}

/**
 * The chain in its order, and which of it holds: the last that was completed. One that was withdrawn, declined or is still out changes
 * nothing; it stands behind what it would change.
 */
export function chainOf(links: readonly Link[]): { order: Link[]; holds: Link | null } {
	const order: Link[] = [];
	const after = (id: string | null) =>
		links.filter((link) => link.amends === id).toSorted((a, b) => ((a.at ?? '9') < (b.at ?? '9') ? -1 : 1));
	const walk = (id: string | null) => {
		for (const link of after(id)) {
			if (order.includes(link)) continue;
			order.push(link);
			walk(link.id);
		}
	};
	walk(null);
	return { order, holds: order.filter((link) => link.status === 'completed').at(-1) ?? null };
}
