import { invalidateAll } from '$app/navigation';

/**
 * Keeps a page current: loads its data anew when the server says that something changed, at most four times a
 * second, and once when the connection comes back. Call in `$effect`.
 * @param concerns which packets matter to the page; all when left out
 */
export function keepCurrent(concerns: (packet: string) => boolean = () => true): () => void {
	const source = new EventSource('/live');
	let timer: ReturnType<typeof setTimeout> | undefined;
	let opened = false;
	const soon = () => {
		timer ??= setTimeout(() => {
			timer = undefined;
			void invalidateAll();
		}, 250);
	};
	source.addEventListener('packet', (event) => {
		if (concerns(JSON.parse(event.data) as string)) soon();
	});
	source.addEventListener('open', () => {
		// what happened while the connection was away is not sent again
		if (opened) soon();
		opened = true;
	});
	return () => {
		clearTimeout(timer);
		source.close();
	};
}
