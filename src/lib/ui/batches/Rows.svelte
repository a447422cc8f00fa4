<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '../forms';
	import { untrack } from 'svelte';
	import { day } from '../dates';
	import { Paged, type Page } from '../lists/paged.svelte';
	import type { Column } from '../parts/table/columns';
	import Table from '../parts/table/Table.svelte';
	import type { BatchRow } from './shapes';

	/** Every row of the sheet, how it stands, and what can be done with it. */
	let {
		id,
		list,
		query,
		names,
		going,
		total,
		zone,
		now
	}: {
		/** the batch */
		id: string;
		list: Page<BatchRow>;
		query: string;
		/** of the columns */
		names: string[];
		/** rows go now, or could: nothing can be settled */
		going: boolean;
		total: number;
		zone: string;
		now: string;
	} = $props();

	const TONE: Record<string, string> = {
		ready: 'text-moss',
		twice: 'text-copper',
		faulty: 'text-brick',
		'left out': 'text-quiet',
		gone: 'text-thread'
	};
	let chosen = $state<string[]>([]);
	const paged = new Paged<BatchRow>(
		`/batches/${untrack(() => id)}/rows`,
		untrack(() => list),
		untrack(() => query)
	);
	$effect(() => void paged.begin(list, query));
	const COLUMNS = $derived<Column<BatchRow>[]>([
		{ key: 'n', name: 'Row', fixed: true },
		...names.map((name, i) => ({ key: String(i), name, look: 'max-w-64 break-words' })),
		{ key: 'state', name: 'State', fixed: true, look: 'break-words' },
		{ key: 'do', name: 'What to do', unseen: true, fixed: true }
	]);
</script>

{#snippet deed(what: string, says: string, row: BatchRow)}
	<button class="plain" name="do" value={what} aria-label="{says}, row {row.line}">{says}</button>
{/snippet}

{#snippet cell(row: BatchRow, key: string)}
	{#if key === 'n'}<span class="text-quiet">{row.line}</span>
	{:else if key === 'state'}<span class={row.changed ? 'text-copper' : TONE[row.is]}
			>{#if row.packet}<a class="text-thread underline" href="/packets/{row.packet}">{row.said}</a>{#if row.since}<span
						class="text-quiet">, {day(row.since, zone, now)}</span
					>{/if}{:else}{row.said}{/if}</span
		>
	{:else if key === 'do'}
		{#if !going && row.is !== 'gone'}
			<form method="POST" action="?/row" use:enhance class="flex gap-1 whitespace-nowrap">
				<input type="hidden" name="n" value={row.n} />
				{#if row.is === 'twice'}{@render deed('this one', 'This one', row)}{/if}
				{#if row.out}{@render deed('put back', 'Put back', row)}
				{:else if row.is === 'ready' || row.is === 'twice'}{@render deed('take out', 'Take out', row)}{/if}
				{#if row.is === 'ready'}<a
						class="plain"
						href="/batches/{id}/rehearsal?row={row.n}"
						aria-label="Rehearse row {row.line}">Rehearse</a
					>{/if}
			</form>
		{/if}
	{:else}
		{@const i = Number(key)}
		{#if row.column === i && !going}
			<form method="POST" action="?/right" class="flex w-60 items-start gap-1 pr-3" use:enhance={keepFilled}>
				<input type="hidden" name="n" value={row.n} /><input type="hidden" name="column" value={i} />
				<input
					class="input min-w-0 border-brick!"
					name="text"
					maxlength="1000"
					aria-invalid="true"
					aria-label="{names[i]}, row {row.line}"
					value={row.cells[i]}
				/>
				<button class="plain whitespace-nowrap" aria-label="Put {names[i]} right, row {row.line}">Put right</button>
			</form>
		{:else}
			{row.cells[i]}{#if row.before[i] !== undefined}<br /><span class="text-[13px] text-quiet"
					>was <s>{row.before[i] || 'empty'}</s></span
				>{/if}
		{/if}
	{/if}
{/snippet}

<Table
	label="Rows of the sheet"
	columns={COLUMNS}
	rows={paged.rows}
	name={(row) => `row ${row.line}`}
	{cell}
	{total}
	more={paged.next ? () => paged.more() : null}
	bind:chosen={() => (going ? undefined : chosen), (rows) => (chosen = rows ?? [])}
	estimate={34}
>
	{#snippet act(ids)}
		<form
			method="POST"
			action="?/row"
			class="flex gap-2"
			use:enhance={() =>
				async ({ update }) => {
					chosen = [];
					await update();
				}}
		>
			{#each ids as one (one)}<input type="hidden" name="n" value={one} />{/each}
			<button class="button" name="do" value="take out">Take them out</button>
			<button class="button" name="do" value="put back">Put them back</button>
		</form>
	{/snippet}
	{#snippet empty()}<p class="py-8 font-serif text-quiet">No row is like this.</p>{/snippet}
</Table>
