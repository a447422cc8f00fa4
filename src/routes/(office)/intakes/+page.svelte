<script lang="ts">
	import { enhance } from '$app/forms';
	import { goto } from '$app/navigation';
	import { day } from '$lib/ui/dates';
	import Pick from '$lib/ui/parts/Pick.svelte';
	import type { Column, Order } from '$lib/ui/parts/table/columns';
	import Table from '$lib/ui/parts/table/Table.svelte';

	let { data, form } = $props();
	type Row = (typeof data.rows)[number];
	let order = $state<Order | null>(null);
	let template = $state('');
	const STATE = { making: 'being made', open: 'open', closed: 'closed' } as const;
	const COLUMNS: Column<Row>[] = [
		{ key: 'heading', name: 'Page', by: (row) => row.heading, fixed: true },
		{ key: 'template', name: 'Template', by: (row) => row.template },
		{ key: 'state', name: 'State', by: (row) => STATE[row.state] },
		{ key: 'begun', name: 'Begun', by: (row) => row.begun },
		{ key: 'handed', name: 'Handed in', by: (row) => row.handed },
		{ key: 'owner', name: 'Whose', by: (row) => row.owner },
		{ key: 'changed', name: 'Changed', by: (row) => row.changedAt, look: 'whitespace-nowrap' }
	];
</script>

{#snippet cell(row: Row, key: string)}
	{#if key === 'heading'}<a href="/intakes/{row.id}" class="font-semibold no-underline hover:underline"
			>{row.heading || 'Without a heading'}</a
		>
	{:else if key === 'template'}{row.template}
	{:else if key === 'state'}{STATE[row.state]}{row.ahead ? ', changed since' : ''}
	{:else if key === 'begun'}{row.begun}
	{:else if key === 'handed'}{row.handed}
	{:else if key === 'owner'}{row.owner}
	{:else}{day(row.changedAt, data.organisation.zone, data.now)}{/if}
{/snippet}

<svelte:head><title>Intake · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<h1 class="pb-3 text-[19px]">Intake</h1>
	<form method="POST" use:enhance class="flex flex-wrap items-end gap-3 pb-5">
		<div class="w-80 max-w-full">
			<Pick
				label="A page of its own for the template"
				name="template"
				value={template}
				options={data.templates.map(({ id, title }): [string, string] => [id, title])}
				onchoose={(id) => (template = id)}
			/>
		</div>
		<button class="button {data.rows.length === 0 ? 'primary' : ''}" disabled={template === ''}>Make it</button>
		<p class="wrong empty:hidden" role="alert">{form?.say ?? ''}</p>
	</form>
	{#if data.rows.length === 0}
		<p class="max-w-md py-6 font-serif text-quiet">
			An intake is a page from which people start a packet themselves: they answer what applies to them, name who else
			signs, and sign. It is made from a template; choose one above.
		</p>
	{:else}
		<Table
			label="Intakes"
			columns={COLUMNS}
			rows={data.rows}
			{cell}
			bind:order
			total={data.rows.length}
			onopen={(row) => void goto(`/intakes/${row.id}`)}
			estimate={36}
		/>
	{/if}
</main>
