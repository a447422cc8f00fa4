import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Keeps a page current: loads its data anew when the server says that something changed, at most four times a
 * second, and once when the connection comes back. Call in `$effect`.
 * @param concerns which packets matter to the page; all when left out
 */
export function keepCurrent(concerns: (packet: string) => boolean = () => true): () => void {
	const source = new EventSource('/live');
	let timer: ReturnType<typeof setTimeout> | undefined;
	let opened = false;
	let over = false;
	const soon = () => {
		timer ??= setTimeout(() => void anew(), 250);
	};
	async function anew() {
		// loading anew would call off a way to another page that is under way: a press on a link would be lost
		if (navigating.complete) {
			await navigating.complete.catch(() => undefined);
			if (!over) timer = setTimeout(() => void anew(), 50);
			return;
		}
		timer = undefined;
		await invalidateAll();
	}
	source.addEventListener('packet', (event) => {
		if (concerns(JSON.parse(event.data) as string)) soon();
	});
	source.addEventListener('open', () => {
		// what happened while the connection was away is not sent again
		if (opened) soon();
		opened = true;
	});
	return () => {
		over = true;
		clearTimeout(timer);
		source.close();
	};
}
