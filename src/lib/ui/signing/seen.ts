/** Half of a page in view, or of the window filled by it, counts as being seen. */
const ENOUGH = 0.5;

interface Seen {
	paper: string;
	page: number;
	seconds: number;
}

/**
 * Measures how long each page is in view while the window is: elements with `data-seen="PAPER NUMBER"` inside `root`.
 * `tell` gets what has gathered when the window is left, and when watching ends.
 */
export function watchPages(root: HTMLElement, tell: (pages: Seen[]) => void): () => void {
	const spent = new Map<string, number>();
	const since = new Map<string, number>();
	const stop = (name: string) => {
		const began = since.get(name);
		if (began === undefined) return;
		since.delete(name);
		spent.set(name, (spent.get(name) ?? 0) + performance.now() - began);
	};
	const watcher = new IntersectionObserver(
		(entries) => {
			for (const { target, isIntersecting, intersectionRatio, intersectionRect } of entries) {
				const name = (target as HTMLElement).dataset['seen']!;
				const enough = intersectionRatio >= ENOUGH || intersectionRect.height > window.innerHeight * ENOUGH;
				if (isIntersecting && enough && document.visibilityState === 'visible') {
					if (!since.has(name)) since.set(name, performance.now());
				} else stop(name);
			}
		},
		{ threshold: [0, 0.25, ENOUGH, 0.75, 1] }
	);
	const flush = () => {
		for (const name of [...since.keys()]) {
			stop(name);
			since.set(name, performance.now());
		}
		const pages = [...spent].flatMap(([name, ms]): Seen[] => {
			const at = name.lastIndexOf(' ');
			const seconds = Math.round(ms / 1000);
			return seconds > 0 ? [{ paper: name.slice(0, at), page: Number(name.slice(at + 1)), seconds }] : [];
		});
		spent.clear();
		if (pages.length > 0) tell(pages);
	};
	const hidden = () => {
		if (document.visibilityState === 'hidden') {
			flush();
			since.clear();
		}
	};
	for (const element of root.querySelectorAll('[data-seen]')) watcher.observe(element);
	document.addEventListener('visibilitychange', hidden);
	return () => {
		watcher.disconnect();
		document.removeEventListener('visibilitychange', hidden);
		flush();
	};
}
