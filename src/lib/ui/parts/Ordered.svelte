<script lang="ts" generics="Item extends { id: string }">
	import { dndzone, type DndEvent } from 'svelte-dnd-action';
	import { onMount, type Snippet } from 'svelte';
	import { itself, politely } from './dragging';

	/**
	 * A list that is put in order by dragging: with mouse or finger, or by keys (Enter takes one up and lets it go, arrows move it,
	 * Esc leaves it), each step told to screen readers.
	 */
	let {
		label,
		items,
		name,
		row,
		disabled = false,
		look = '',
		onorder
	}: {
		label: string;
		items: Item[];
		/** what one is called */
		name: (item: Item) => string;
		row: Snippet<[Item, number]>;
		disabled?: boolean;
		/** classes of a row */
		look?: string;
		/** the ids in their new order, which of them has moved, and to which place */
		onorder: (ids: string[], moved: string, to: number) => void;
	} = $props();

	const uid = $props.id();
	onMount(politely);
	let held = $derived(items);

	/** the id of what is being dragged */
	let inHand = $state<string | null>(null);
	function consider({ detail }: CustomEvent<DndEvent<Item>>) {
		inHand = detail.info.id;
		held = detail.items;
	}
	function finalize(event: CustomEvent<DndEvent<Item>>) {
		const { items: next, info } = event.detail;
		const ids = next.map(({ id }) => id);
		held = next;
		inHand = null;
		const changed = ids.some((id, i) => id !== items[i]?.id);
		if (changed) onorder(ids, info.id, ids.indexOf(info.id));
		// whoever keeps the order elsewhere may not have taken it
		held = items;
	}
	const told = { onconsider: consider, onfinalize: finalize };
</script>

<ol
	aria-label={label}
	use:dndzone={{
		items: held,
		type: `ordered-${uid}`,
		flipDurationMs: 120,
		dragDisabled: disabled || items.length < 2,
		delayTouchStart: true,
		dropTargetStyle: {},
		dropTargetClasses: ['outline-dashed', 'outline-1', 'outline-line']
	}}
	{...told as object}
>
	{#each held as item, i (item.id)}
		{@const one = itself(item, inHand, items)}
		<li class={look} aria-label={name(one)}>{@render row(one, i)}</li>
	{/each}
</ol>
