<script lang="ts">
	import { goto } from '$app/navigation';
	import { askedOf, type PacketsAsked } from '$lib/core/packet';
	import { untrack } from 'svelte';
	import { moment } from '$lib/ui/dates';
	import { keepList } from '$lib/ui/lists/kept';
	import Filters from '$lib/ui/lists/Filters.svelte';
	import FoundAt from '$lib/ui/lists/FoundAt.svelte';
	import ListSearch from '$lib/ui/lists/ListSearch.svelte';
	import PacketName from '$lib/ui/lists/PacketName.svelte';
	import Views from '$lib/ui/lists/Views.svelte';
	import { orderOf, sortOf } from '$lib/ui/lists/order';
	import { Paged } from '$lib/ui/lists/paged.svelte';
	import type { Column, Order } from '$lib/ui/parts/table/columns';
	import Table from '$lib/ui/parts/table/Table.svelte';
	import Thread from '$lib/ui/thread/Thread.svelte';

	let { data } = $props();
	const TONE: Record<string, string> = {
		completed: 'text-moss',
		declined: 'text-brick',
		withdrawn: 'text-quiet',
		expired: 'text-copper'
	};
	const zone = $derived(data.organisation.zone);

	type Row = (typeof data.list.rows)[number];
	const paged = new Paged<Row>(
		'/records/rows',
		untrack(() => data.list),
		untrack(() => data.query)
	);
	$effect(() => void paged.begin(data.list, data.query));

	let settings = $derived(data.settings);
	// what is searched for comes in the order of its sending
	const sorts = $derived(data.search === '');
	const COLUMNS = $derived<Column<Row>[]>([
		{ key: 'title', name: 'Packet', sorts, fixed: true },
		{ key: 'thread', name: 'Who took part' },
		{ key: 'how', name: 'How it ended' },
		{ key: 'ended', name: 'When', sorts, look: 'whitespace-nowrap' },
		{ key: 'sent', name: 'Sent', sorts, look: 'whitespace-nowrap' },
		{ key: 'folder', name: 'Folder' },
		{ key: 'sender', name: 'Sent by' },
		{ key: 'copies', name: 'Copies' }
	]);
	const order = $derived(sorts ? orderOf(data.asked) : null);
	const putInOrder = (next: Order) => go({ ...data.asked, ...sortOf(next) });
	/** the same search, in another order or of others */
	function go(next: PacketsAsked): void {
		const query = askedOf(next);
		if (data.search) query.set('q', data.search);
		void goto(`?${query}`, { noScroll: true, keepFocus: true });
	}
</script>

{#snippet cell(row: Row, key: string)}
	{#if key === 'title'}<PacketName packet={row} />{#if row.found}<FoundAt found={row.found} />{/if}
	{:else if key === 'thread'}<Thread thread={row.thread} now={row.endedAt ?? row.sentAt} ended />
	{:else if key === 'how'}<span class="{TONE[row.status]} font-semibold">{row.status}</span>
	{:else if key === 'ended'}{row.endedAt ? moment(row.endedAt, zone) : ''}
	{:else if key === 'sent'}{moment(row.sentAt, zone)}
	{:else if key === 'folder'}{row.folder}
	{:else if key === 'sender'}{row.sender}
	{:else if row.status === 'completed'}<a href="/packets/{row.id}" class="text-thread">Copies of {row.reference}</a
		>{/if}
{/snippet}

<svelte:head><title>Records · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<div class="flex flex-wrap items-end gap-6 pb-3">
		<h1 class="text-[19px]">Records</h1>
		<ListSearch
			label="Search records"
			placeholder="Title, person, answer or document"
			value={data.search}
			keep={Object.fromEntries(askedOf({ list: 'ended', filter: data.asked.filter ?? {} }))}
			wide
		/>
		<div class="flex gap-2">
			<Filters ended filter={data.asked.filter ?? {}} onfilter={(filter) => go({ ...data.asked, filter })} />
			<Views
				views={settings.views}
				query={data.query}
				onkeep={(views) => {
					settings = { ...settings, views };
					void keepList('records', settings);
				}}
			/>
		</div>
	</div>
	<Table
		label="Packets that have ended"
		columns={COLUMNS}
		rows={paged.rows}
		{cell}
		{order}
		onorder={putInOrder}
		total={data.count}
		more={paged.next ? () => paged.more() : null}
		hidden={settings.hidden}
		onhide={(hidden) => {
			settings = { ...settings, hidden };
			void keepList('records', settings);
		}}
		onopen={(row) => void goto(`/packets/${row.id}`)}
		estimate={54}
	>
		{#snippet empty()}
			<p class="max-w-md py-8 font-serif text-quiet">
				{data.search
					? `Nothing finished has the words “${data.search}”. What is still out is on the Desk.`
					: 'Here is everything that has ended: completed, declined, withdrawn or out of time. Nothing has yet; what is out is on the Desk.'}
			</p>
		{/snippet}
	</Table>
</main>
