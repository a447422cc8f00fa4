<script lang="ts" generics="Row extends { id: string }">
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import {
		columnVisibilityFeature,
		createSortedRowModel,
		createTable,
		rowSelectionFeature,
		rowSortingFeature,
		sortFn_alphanumeric,
		sortFn_basic,
		tableFeatures,
		type RowSelectionState,
		type Updater
	} from '@tanstack/svelte-table';
	import type { Snippet } from 'svelte';
	import Check from '../Check.svelte';
	import Columns from './Columns.svelte';
	import type { Column, Order } from './columns';
	import { Near } from './near.svelte';
	import { DOES, keepsPresses } from './presses';

	/**
	 * A list of rows: put in order by their heads, chosen at the left (with Shift from one to another), and acted on above. Only
	 * the rows near the view are drawn, and further pages are fetched when the view comes near them. Arrows, Home and End walk
	 * through it, Space chooses, Enter opens.
	 */
	let {
		label,
		columns,
		rows,
		name,
		cell,
		order = $bindable(null),
		onorder,
		total,
		more,
		chosen = $bindable(),
		act,
		hidden = [],
		onhide,
		open,
		onopen,
		current,
		height,
		estimate = 44,
		above,
		empty
	}: {
		/** what it is a list of */
		label: string;
		columns: Column<Row>[];
		rows: Row[];
		/** what a row is called, for who chooses without seeing */
		name?: (row: Row) => string;
		/** what stands in a cell */
		cell: Snippet<[Row, string]>;
		order?: Order | null;
		/** where the server puts in order: asks it to; without it the rows are put in order here */
		onorder?: (order: Order) => void;
		/** how many there are, where not all are here yet; null where nobody has counted */
		total?: number | null;
		/** fetches the next page; null where all are here */
		more?: (() => Promise<void>) | null;
		/** the ids of those that are chosen; without it none can be */
		chosen?: string[];
		/** what can be done with those that are chosen */
		act?: Snippet<[string[]]>;
		/** columns put away, and what keeps that */
		hidden?: string[];
		onhide?: (hidden: string[]) => void;
		/** where a row leads */
		open?: (row: Row) => string;
		/** what pressing a row, or Enter on it, does */
		onopen?: (row: Row) => void;
		/** the id of the row that is open beside the list */
		current?: string | null;
		/** as high as this, scrolled in itself; without it the page scrolls */
		height?: string;
		/** a row's height as long as it hasn't been drawn, in px */
		estimate?: number;
		/** what stands at the left of what is above */
		above?: Snippet;
		empty?: Snippet;
	} = $props();

	const features = tableFeatures({
		rowSortingFeature,
		rowSelectionFeature,
		columnVisibilityFeature,
		sortedRowModel: createSortedRowModel(),
		sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic }
	});
	const shown = $derived(columns.filter((column) => column.fixed || !hidden.includes(column.key)));
	const choosable = $derived(chosen !== undefined);
	const selection = $derived<RowSelectionState>(Object.fromEntries((chosen ?? []).map((one) => [one, true as const])));

	const table = createTable({
		features,
		get data() {
			return rows;
		},
		get columns() {
			return columns.map((column) => ({
				id: column.key,
				accessorFn: (row: Row) => column.by?.(row) ?? undefined,
				sortUndefined: 'last' as const,
				sortFn: 'alphanumeric' as const
			}));
		},
		getRowId: (row: Row) => row.id,
		get manualSorting() {
			return onorder !== undefined;
		},
		enableRowSelection: true,
		get state() {
			return {
				sorting: order && !onorder ? [{ id: order.key, desc: order.down }] : [],
				rowSelection: selection
			};
		},
		onRowSelectionChange: (next: Updater<RowSelectionState>) => {
			const now = typeof next === 'function' ? next(selection) : next;
			chosen = Object.keys(now).filter((one) => now[one]);
		}
	});
	const model = $derived(table.getRowModel().rows);
	const all = $derived(model.length > 0 && model.every((row) => selection[row.id]));

	function putInOrder(key: string) {
		const most = columns.find((column) => column.key === key)?.mostFirst ?? false;
		const next = { key, down: order?.key === key ? !order.down : most };
		order = next;
		onorder?.(next);
	}

	let body = $state<HTMLElement>();
	let scroller = $state<HTMLElement>();
	const near = new Near({
		body: () => body,
		scroller: () => (height ? scroller : undefined),
		ids: () => model.map((row) => row.id),
		estimate: () => estimate
	});
	const drawn = $derived(near.drawn);

	// columns keep the widths that they have at first: otherwise rows that come and go would move the columns, break titles
	// elsewhere and so move all rows under the hand. What can't be broken still widens its column; not so in a long list,
	// where each row that comes would have all of them reckoned anew
	const [SHORT, LONG] = [12, 200];
	let head = $state<HTMLTableRowElement>();
	let widths = $state.raw<number[] | null>(null);
	let room = $state(0);
	const keeps = $derived(model.length > SHORT);
	$effect(() => {
		void [shown, choosable, room];
		widths = null;
		if (!keeps || !near.mounted) return;
		let frame = 0;
		let over = false;
		const { fonts } = document;
		void fonts.ready.then(() => {
			if (over) return;
			frame = requestAnimationFrame(() => {
				widths = [...(head?.cells ?? [])].map((cell) => cell.getBoundingClientRect().width);
			});
		});
		return () => {
			over = true;
			cancelAnimationFrame(frame);
		};
	});

	// the next page comes before its place is in view
	let fetching = $state(false);
	$effect(() => {
		const last = drawn[drawn.length - 1] ?? 0;
		if (near.mounted && more && !fetching && last >= model.length - 15) {
			fetching = true;
			void more().finally(() => (fetching = false));
		}
	});

	// one row has the keys; the others are reached from it
	let held = $state<string | null>(null);
	const holder = $derived(model.some((row) => row.id === held) ? held : (model[0]?.id ?? null));

	async function go(index: number) {
		const to = Math.max(0, Math.min(model.length - 1, index));
		held = model[to]?.id ?? null;
		near.show(to);
		for (let i = 0; i < 20; i++) {
			const row = body?.querySelector<HTMLElement>(`[data-row="${CSS.escape(held ?? '')}"]`);
			if (row) return row.focus({ preventScroll: false });
			await new Promise((next) => requestAnimationFrame(next));
		}
	}

	function press(event: KeyboardEvent, index: number) {
		if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return;
		const steps: Record<string, number> = {
			ArrowDown: index + 1,
			j: index + 1,
			ArrowUp: index - 1,
			k: index - 1,
			PageDown: index + 10,
			PageUp: index - 10,
			Home: 0,
			End: model.length - 1
		};
		const row = model[index]!;
		if (event.key in steps) void go(steps[event.key]!);
		else if (event.key === ' ' && choosable) row.toggleSelected();
		else if (event.key === 'Enter' && (onopen || open)) enter(row.original);
		else return;
		event.preventDefault();
	}
	function enter(row: Row) {
		if (onopen) onopen(row);
		else body?.querySelector<HTMLAnchorElement>(`[data-row="${CSS.escape(row.id)}"] a[href]`)?.click();
	}
	/** Pressing a row anywhere but on what does something else. */
	function pressed(event: MouseEvent, row: Row) {
		if (!onopen || (event.target as HTMLElement).closest(DOES)) return;
		if (getSelection()?.toString()) return;
		held = row.id;
		onopen(row);
	}
	const said = $derived(
		total === null || total === undefined
			? ''
			: model.length < total
				? `${model.length} of ${total}`
				: `${total} in all`
	);
</script>

{#if choosable || above || said || onhide}
	<div class="flex min-h-8 flex-wrap items-center gap-x-3 gap-y-2 pb-2">
		{#if choosable && chosen!.length > 0}
			<p role="status" class="font-semibold">{chosen!.length} chosen</p>
			{@render act?.(chosen!)}
			<button type="button" class="plain" onclick={() => (chosen = [])}>Choose none</button>
		{:else}
			{@render above?.()}
			{#if said}<p class="text-[14px] text-quiet">{said}</p>{/if}
		{/if}
		{#if onhide}<span class="ml-auto"><Columns {columns} {hidden} {onhide} /></span>{/if}
	</div>
{/if}
<div
	bind:this={scroller}
	bind:clientWidth={room}
	class="relative overflow-x-auto"
	style:max-height={height}
	style:overflow-y={height ? 'auto' : null}
>
	<table
		class="list {widths && model.length > LONG ? 'table-fixed' : ''}"
		role="grid"
		aria-label={label}
		aria-rowcount={(total ?? model.length) + 1}
	>
		{#if widths}<colgroup
				>{#each widths as width, i (i)}<col style:width="{width}px" />{/each}</colgroup
			>{/if}
		<thead class={height ? 'sticky top-0 z-10 bg-sheet' : ''}>
			<tr bind:this={head} aria-rowindex={1}>
				{#if choosable}<th class="w-8"
						><Check
							label="Choose all that are listed"
							unseen
							checked={all}
							some={chosen!.length > 0}
							onchange={(now) => (chosen = now ? model.map((row) => row.id) : [])}
						/></th
					>{/if}
				{#each shown as column (column.key)}
					{@const sorts = column.by !== undefined || column.sorts}
					{@const here = order?.key === column.key}
					<th aria-sort={here ? (order!.down ? 'descending' : 'ascending') : sorts ? 'none' : undefined}>
						{#if sorts}<button
								type="button"
								class="-mx-1 inline-flex min-h-6 cursor-pointer items-center gap-1 rounded-sm px-1 hover:bg-wash {here
									? 'font-semibold text-ink'
									: ''}"
								onclick={() => putInOrder(column.key)}
								>{column.name}
								{#if here}{#if order!.down}<ArrowDown size={13} aria-hidden="true" />{:else}<ArrowUp
											size={13}
											aria-hidden="true"
										/>{/if}{/if}</button
							>{:else if column.unseen}<span class="unseen">{column.name}</span>{:else}{column.name}{/if}
					</th>
				{/each}
			</tr>
		</thead>
		<tbody bind:this={body} {@attach keepsPresses}>
			{#if near.before > 0}<tr aria-hidden="true" style:height="{near.before}px"></tr>{/if}
			{#each drawn as index (model[index]!.id)}
				{@const row = model[index]!}
				<tr
					data-row={row.id}
					data-index={index}
					aria-rowindex={index + 2}
					aria-selected={choosable ? (selection[row.id] ?? false) : current === row.id}
					tabindex={row.id === holder ? 0 : -1}
					class="scroll-mt-14 {selection[row.id] || current === row.id
						? 'bg-linen shadow-[inset_3px_0_0_var(--thread)]'
						: 'hover:bg-linen'} {onopen ? 'cursor-pointer' : ''}"
					onkeydown={(event) => press(event, index)}
					onfocus={() => (held = row.id)}
					onclick={(event) => pressed(event, row.original)}
					{@attach near.measure}
				>
					{#if choosable}<td class="w-8"
							><Check
								label={name ? `Choose ${name(row.original)}` : 'Choose this row'}
								unseen
								checked={selection[row.id] ?? false}
								onchange={(now, shift) => row.getToggleSelectedHandler()({ target: { checked: now }, shiftKey: shift })}
							/></td
						>{/if}
					{#each shown as column (column.key)}<td class={column.look}>{@render cell(row.original, column.key)}</td
						>{/each}
				</tr>
			{/each}
			{#if near.after > 0}<tr aria-hidden="true" style:height="{near.after}px"></tr>{/if}
		</tbody>
	</table>
</div>
{#if fetching}<p role="status" class="py-3 text-[14px] text-quiet">Fetching more…</p>
{:else if model.length === 0}{@render empty?.()}{/if}
