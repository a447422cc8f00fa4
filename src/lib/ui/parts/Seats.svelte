<script lang="ts" generics="Item extends { id: string }">
	import { dndzone, SHADOW_ITEM_MARKER_PROPERTY_NAME, TRIGGERS, type DndEvent } from 'svelte-dnd-action';
	import { onMount, type Snippet } from 'svelte';
	import { itself, politely } from './dragging';

	/**
	 * Things that stand at stops, one after the other or side by side, and are dragged: onto a stop, to stand beside those there, or
	 * between two, for a stop of their own. By mouse and finger; where `keys`, by Enter, arrows and Tab as well.
	 */
	let {
		label,
		stops,
		name,
		seat,
		head,
		tail,
		across = false,
		keys = false,
		disabled = () => false,
		stopLook = '',
		seatsLook = '',
		onput
	}: {
		label: string;
		stops: { id: string; items: Item[]; name: string }[];
		name: (item: Item) => string;
		seat: Snippet<[Item, number]>;
		/** what stands at a stop besides */
		head?: Snippet<[number]>;
		/** what stands after the last */
		tail?: Snippet;
		/** from left to right, not from above */
		across?: boolean;
		keys?: boolean;
		/** who stays where they are */
		disabled?: (item: Item) => boolean;
		stopLook?: string;
		seatsLook?: string;
		onput: (id: string, to: number, how: 'before' | 'beside') => void;
	} = $props();

	const uid = $props.id();
	onMount(politely);
	/** what each stop holds, and each place between two, while something is dragged */
	let held = $derived(stops.map(({ items }) => items));
	let between = $derived<Item[][]>([...stops.map(() => []), []]);
	/** the id of what is being dragged */
	let inHand = $state<string | null>(null);
	const all = $derived(stops.flatMap(({ items }) => items));

	const zone = (items: Item[], shut = false) => ({
		items,
		type: `seats-${uid}`,
		flipDurationMs: 120,
		dragDisabled: shut,
		delayTouchStart: true,
		zoneTabIndex: keys && inHand ? 0 : -1,
		zoneItemTabIndex: keys ? 0 : -1,
		dropTargetStyle: {},
		dropTargetClasses: ['bg-wash']
	});
	const at = (i: number, how: 'before' | 'beside') => {
		const put = (items: Item[]) => {
			if (how === 'beside') held = held.map((one, n) => (n === i ? items : one));
			else between = between.map((one, n) => (n === i ? items : one));
		};
		return {
			onconsider: ({ detail }: CustomEvent<DndEvent<Item>>) => {
				inHand = detail.info.id;
				put(detail.items);
			},
			onfinalize: ({ detail: { items, info } }: CustomEvent<DndEvent<Item>>) => {
				inHand = null;
				put(items);
				const came = info.trigger === TRIGGERS.DROPPED_INTO_ZONE && items.some(({ id }) => id === info.id);
				const stayed = how === 'beside' && stops[i]?.items.some(({ id }) => id === info.id);
				// as it is kept elsewhere, which may not have taken it
				held = stops.map((stop) => stop.items);
				between = [...stops.map(() => []), []];
				if (came && !stayed) onput(info.id, i, how);
			}
		} as object;
	};
	const isShadow = (item: Item) => (item as Record<string, unknown>)[SHADOW_ITEM_MARKER_PROPERTY_NAME] === true;
</script>

{#snippet gap(i: number)}
	<div
		class="shrink-0 rounded-sm {inHand
			? across
				? 'flex min-h-12 min-w-10 outline-1 outline-dashed outline-line'
				: 'grid min-h-8 outline-1 outline-dashed outline-line'
			: across
				? 'flex min-h-12 min-w-1'
				: 'grid min-h-2'}"
		aria-label="A stop of their own, {i === stops.length ? 'last' : `before stop ${i + 1}`}"
		use:dndzone={zone(between[i] ?? [])}
		{...at(i, 'before')}
	>
		{#each between[i] ?? [] as item (item.id)}<div class={isShadow(item) ? 'opacity-50' : ''}>
				{@render seat(itself(item, inHand, all), i)}
			</div>{/each}
	</div>
{/snippet}

<ol aria-label={label} class={across ? 'flex min-w-0 items-start' : 'grid'}>
	{#each stops as stop, i (stop.id)}
		<li class={across ? 'flex shrink-0 items-start' : 'grid'} aria-label={stop.name}>
			{@render gap(i)}
			<div class={stopLook}>
				{@render head?.(i)}
				<div
					class={seatsLook}
					aria-label="Beside others: {stop.name}"
					use:dndzone={zone(held[i] ?? [], (held[i] ?? []).every(disabled))}
					{...at(i, 'beside')}
				>
					{#each held[i] ?? [] as item (item.id)}<div
							class={isShadow(item) ? 'opacity-50' : ''}
							aria-label={name(itself(item, inHand, all))}
							data-seat={item.id}
						>
							{@render seat(itself(item, inHand, all), i)}
						</div>{/each}
				</div>
			</div>
			{#if i === stops.length - 1}{@render gap(stops.length)}{/if}
		</li>
	{/each}
	{#if tail}<li class="shrink-0">{@render tail()}</li>{/if}
</ol>
