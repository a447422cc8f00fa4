import type { Signing } from './signing.svelte';

/** What somebody did at one field while its place had the focus. */
interface Stumbled {
	field: string;
	seconds: number;
	visits: number;
	/** of those, after they had left it once */
	back: number;
	/** entries that were refused when they left it, by the refusal's code */
	refused: { code: string; n: number }[];
}

/**
 * Counts, per field, how long somebody is at it, how often they come back and what is refused: elements with `data-todo="FIELD"` inside
 * `root`. Nothing of what is typed. `tell` gets what has gathered when the window is left, and when watching ends.
 * @param refusedAt the code of what is wrong with what stands in a field; null where nothing is
 */
function watchFields(
	root: HTMLElement,
	refusedAt: (field: string) => string | null,
	tell: (fields: Stumbled[], last: string) => void
): () => void {
	const counts = new Map<string, Stumbled & { ms: number; codes: Map<string, number> }>();
	const visited = new Set<string>();
	let at: { field: string; since: number } | null = null;
	let last = '';
	const of = (field: string) => {
		const one = counts.get(field) ?? {
			field,
			seconds: 0,
			visits: 0,
			back: 0,
			refused: [],
			ms: 0,
			codes: new Map<string, number>()
		};
		counts.set(field, one);
		return one;
	};
	const leave = () => {
		if (!at) return;
		const one = of(at.field);
		one.ms += performance.now() - at.since;
		const code = refusedAt(at.field);
		if (code) one.codes.set(code, (one.codes.get(code) ?? 0) + 1);
		at = null;
	};
	const enter = ({ target }: FocusEvent) => {
		const field = (target as HTMLElement).closest<HTMLElement>('[data-todo]')?.dataset['todo'] ?? null;
		if (field === at?.field) return;
		leave();
		if (field === null) return;
		at = { field, since: performance.now() };
		const one = of(field);
		one.visits += 1;
		if (visited.has(field)) one.back += 1;
		visited.add(field);
		last = field;
	};
	const flush = () => {
		leave();
		const fields = [...counts.values()].map(({ field, visits, back, ms, codes }): Stumbled => ({
			field,
			seconds: Math.min(86_400, Math.round(ms / 1000)),
			visits,
			back,
			refused: [...codes].map(([code, n]) => ({ code, n }))
		}));
		counts.clear();
		if (fields.length > 0) tell(fields, last);
	};
	const hidden = () => {
		if (document.visibilityState === 'hidden') flush();
	};
	root.addEventListener('focusin', enter);
	document.addEventListener('visibilitychange', hidden);
	return () => {
		root.removeEventListener('focusin', enter);
		document.removeEventListener('visibilitychange', hidden);
		flush();
	};
}

/** Counts at which fields people stumble, and tells the server when the page is left. @returns ends it */
export const countStumbles = (root: HTMLElement, signing: Signing, base: string): (() => void) =>
	watchFields(
		root,
		(id) => {
			const field = signing.fields.find((one) => one.id === id);
			return (field && signing.fault(field)?.code) ?? null;
		},
		(fields, last) =>
			navigator.sendBeacon(
				`${base}/stumbled`,
				new Blob([JSON.stringify({ fields, last })], { type: 'application/json' })
			)
	);
