/**
 * What a page around the frame is told (docs/intake.md): `{ pellum: 'started' | 'handed in' | 'finished' | 'height', … }` by `postMessage`, to
 * whatever page that is. Nothing of it is secret: neither answers nor names.
 */
export function tell(what: 'started' | 'handed in' | 'finished', reference = ''): void {
	if (typeof window === 'undefined' || window.parent === window) return;
	window.parent.postMessage({ pellum: what, ...(reference && { reference }) }, '*');
}

/** Tells how high the page is, whenever that changes, so that its frame can be as high. */
export function tellHeight(): () => void {
	if (window.parent === window) return () => undefined;
	const watch = new ResizeObserver(() =>
		window.parent.postMessage({ pellum: 'height', height: Math.ceil(document.documentElement.scrollHeight) }, '*')
	);
	watch.observe(document.body);
	return () => watch.disconnect();
}

/** First answers in the address's fragment, `#birthday=2012-03-02&county=Brint`, by key. */
export function firstAnswers(hash: string): Record<string, string> {
	return Object.fromEntries([...new URLSearchParams(hash.replace(/^#/, ''))].slice(0, 100));
}
