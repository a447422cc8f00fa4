import { SHADOW_PLACEHOLDER_ITEM_ID } from 'svelte-dnd-action';

/** What is told while something is dragged is a status: it interrupts nobody, and is no error. The package makes it an alert. */
export function politely(): void {
	document.getElementById('dnd-action-aria-alert')?.setAttribute('role', 'status');
}

/**
 * What stands where something was taken up: the package puts a copy there under an id of its own, by which nobody else knows it.
 * Whoever draws it gets the thing itself.
 */
export function itself<Item extends { id: string }>(shown: Item, inHand: string | null, all: Item[]): Item {
	if (shown.id !== SHADOW_PLACEHOLDER_ITEM_ID) return shown;
	return all.find(({ id }) => id === inHand) ?? shown;
}
