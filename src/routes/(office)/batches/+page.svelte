<script lang="ts">
	import { goto } from '$app/navigation';
	import { day } from '$lib/ui/dates';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import type { Column, Order } from '$lib/ui/parts/table/columns';
	import Table from '$lib/ui/parts/table/Table.svelte';

	let { data } = $props();
	type Row = (typeof data.rows)[number];
	let order = $state<Order | null>(null);
	const COLUMNS: Column<Row>[] = [
		{ key: 'name', name: 'Sheet', by: (row) => row.name, fixed: true },
		{ key: 'title', name: 'Template', by: (row) => row.title },
		{ key: 'made', name: 'When', by: (row) => row.madeAt, look: 'whitespace-nowrap' },
		{ key: 'rows', name: 'Rows', by: (row) => row.rows },
		{ key: 'gone', name: 'Gone', by: (row) => row.gone }
	];
	const zone = $derived(data.organisation.zone);

	$effect(() => keepCurrent());
</script>

{#snippet cell(row: Row, key: string)}
	{#if key === 'name'}<a href="/batches/{row.id}" class="font-semibold no-underline hover:underline">{row.name}</a>
	{:else if key === 'title'}{row.title}
	{:else if key === 'made'}{day(row.madeAt, zone, data.now)}
	{:else if key === 'rows'}{row.rows}
	{:else}{row.gone}{row.running === 1 ? ', being sent' : ''}{/if}
{/snippet}

<svelte:head><title>Batches · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<h1 class="pb-3 text-[19px]">Batches</h1>
	{#if data.rows.length === 0}
		<p class="max-w-md py-10 font-serif text-quiet">
			A batch sends one template to many people, each a packet of their own, from a sheet with a row for each. Choose a
			template under <a class="text-thread underline" href="/templates">Templates</a> and press “From a sheet…”.
		</p>
	{:else}
		<Table
			label="Batches"
			columns={COLUMNS}
			rows={data.rows}
			{cell}
			bind:order
			total={data.rows.length}
			onopen={(row) => void goto(`/batches/${row.id}`)}
			estimate={36}
		/>
	{/if}
</main>
