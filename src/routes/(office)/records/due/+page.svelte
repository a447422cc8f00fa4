<script lang="ts">
	import { goto, invalidateAll } from '$app/navigation';
	import { day } from '$lib/ui/dates';
	import PacketName from '$lib/ui/lists/PacketName.svelte';
	import type { Column, Order } from '$lib/ui/parts/table/columns';
	import Table from '$lib/ui/parts/table/Table.svelte';
	import ChosenDue from '$lib/ui/records/ChosenDue.svelte';
	import Places from '$lib/ui/records/Places.svelte';

	let { data } = $props();
	type Row = (typeof data.rows)[number];
	const zone = $derived(data.organisation.zone);
	let order = $state<Order | null>(null);
	let chosen = $state<string[]>([]);
	// what has gone is chosen no more; what was refused still is
	$effect(() => {
		const here = chosen.filter((id) => data.rows.some((row) => row.id === id));
		if (here.length < chosen.length) chosen = here;
	});
	const COLUMNS: Column<Row>[] = [
		{ key: 'title', name: 'Packet', by: (row) => row.title, fixed: true },
		{ key: 'ended', name: 'Ended', by: (row) => row.endedAt, look: 'whitespace-nowrap' },
		{ key: 'kept', name: 'Kept until', by: (row) => row.keptUntil, look: 'whitespace-nowrap' },
		{ key: 'by', name: 'By', by: (row) => row.by },
		{ key: 'state', name: 'Now' }
	];
</script>

{#snippet cell(row: Row, key: string)}
	{#if key === 'title'}<PacketName packet={row} />
	{:else if key === 'ended'}{row.endedAt ? day(row.endedAt, zone, data.now) : ''}
	{:else if key === 'kept'}{row.keptUntil ? day(`${row.keptUntil}T12:00:00Z`, zone, data.now) : ''}
	{:else if key === 'by'}{row.by === 'bin'
			? 'in the bin for its days'
			: row.by === 'said so'
				? 'somebody’s word'
				: row.by}
	{:else if row.holds.length > 0}<span class="text-copper">held: {row.holds.join(', ')}</span>
	{:else if row.agreed}{row.agreed} agrees; one more has to
	{:else if !row.mine}<span class="text-quiet">others decide on it</span>
	{:else}to be decided on{/if}
{/snippet}

<svelte:head><title>To go · Records · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<div class="flex flex-wrap items-center gap-6 pb-3">
		<h1 class="text-[19px]">To go</h1>
		<Places mayAct />
	</div>
	<p class="max-w-2xl pb-3 text-quiet">
		What has been kept for as long as it had to be.{data.two
			? ' Two people of the office agree before anything goes.'
			: ' What a rule lets go by itself goes without standing here.'}
	</p>
	<Table
		label="Packets that are to go"
		columns={COLUMNS}
		rows={data.rows}
		{cell}
		bind:order
		bind:chosen
		name={(row) => row.title}
		onopen={(row) => void goto(`/packets/${row.id}`)}
		estimate={54}
	>
		{#snippet act(ids)}<ChosenDue {ids} two={data.two} ondone={invalidateAll} />{/snippet}
		{#snippet empty()}<p class="max-w-md py-8 font-serif text-quiet">
				Nothing is to go. How long things are kept is set under <a
					class="text-thread underline"
					href="/settings/keeping">Settings, Keeping</a
				>.
			</p>{/snippet}
	</Table>
</main>
