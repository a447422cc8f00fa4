/** What in a row does something of its own when it is pressed. */
export const DOES = 'a, button, input, label';

/** CSS px that a hand moves while it presses. */
const STILL = 4;

/**
 * Rows may move between a press and its end: one that comes above them moves all of them. What lay under the hand when it
 * came down is then pressed all the same, instead of whatever has come there since. Attach to what holds the rows.
 */
export function keepsPresses(rows: HTMLElement): () => void {
	let down: { on: HTMLElement; x: number; y: number } | null = null;
	const begin = ({ target, clientX: x, clientY: y }: MouseEvent) => {
		const on = (target as HTMLElement).closest<HTMLElement>(DOES);
		down = on && { on, x, y };
	};
	const end = (event: MouseEvent) => {
		const was = down;
		down = null;
		// by the keyboard, or by what is called below: not a press of the hand
		if (!was?.on.isConnected || event.detail === 0) return;
		if (was.on.contains(event.target as Node)) return;
		if (Math.hypot(event.clientX - was.x, event.clientY - was.y) > STILL) return;
		event.preventDefault();
		event.stopPropagation();
		was.on.click();
	};
	rows.addEventListener('mousedown', begin, true);
	rows.addEventListener('click', end, true);
	return () => {
		rows.removeEventListener('mousedown', begin, true);
		rows.removeEventListener('click', end, true);
	};
}
