<script lang="ts">
	import { goto } from '$app/navigation';
	import { askedOf, type PacketsAsked } from '$lib/core/packet';
	import { untrack } from 'svelte';
	import { day, moment } from '$lib/ui/dates';
	import { invalidateAll } from '$app/navigation';
	import { takeBack } from '$lib/ui/lists/drafts';
	import Chosen from '$lib/ui/records/Chosen.svelte';
	import Places from '$lib/ui/records/Places.svelte';
	import { size } from '$lib/ui/size';
	import { KeptList } from '$lib/ui/lists/kept.svelte';
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
	// what is chosen is of one list
	let listed = untrack(() => data.query);
	$effect(() => {
		if (data.query !== listed) chosen = [];
		listed = data.query;
	});

	const kept = new KeptList('records', () => data.settings);
	// what is searched for comes in the order of its sending
	const sorts = $derived(data.search === '');
	const lies = $derived(data.lies);
	const COLUMNS = $derived<Column<Row>[]>([
		{ key: 'title', name: 'Packet', sorts, fixed: true },
		{ key: 'people', name: 'Who took part', sorts },
		{ key: 'how', name: 'How it ended', sorts },
		{ key: 'ended', name: 'When', sorts, look: 'whitespace-nowrap' },
		...(lies === 'bin' ? [{ key: 'goes', name: 'Goes for good', look: 'whitespace-nowrap' }] : []),
		{ key: 'type', name: 'Type', sorts },
		{ key: 'folder', name: 'Folder', sorts },
		{ key: 'kept', name: 'Kept until', sorts, look: 'whitespace-nowrap' },
		{ key: 'term', name: 'Term ends', sorts, look: 'whitespace-nowrap' },
		{ key: 'own reference', name: 'Your reference', sorts },
		{ key: 'template', name: 'Template', sorts },
		{ key: 'sender', name: 'Sent by', sorts },
		{ key: 'sent', name: 'Sent', sorts, look: 'whitespace-nowrap' },
		{ key: 'size', name: 'Size', sorts, look: 'whitespace-nowrap text-right' },
		{ key: 'reference', name: 'Reference', sorts },
		{ key: 'copies', name: 'Copies' }
	]);
	let chosen = $state<string[]>([]);
	// what has gone elsewhere is chosen no more; what was refused still is
	$effect(() => {
		const here = chosen.filter((id) => paged.rows.some((row) => row.id === id));
		if (here.length < chosen.length) chosen = here;
	});
	const chosenRows = $derived(paged.rows.filter((row) => chosen.includes(row.id)));
	const goesOn = (since: string) => new Date(Date.parse(since) + data.binDays * 86_400_000).toISOString();
	const EMPTY = $derived(
		lies === 'bin'
			? `The bin is empty. What is put here can be taken back for ${data.binDays} days.`
			: lies === 'archive'
				? 'Nothing has been put out of the way. What lies here is still found by a search.'
				: 'Here is everything that has ended: completed, declined, withdrawn or out of time. Nothing has yet; what is out is on the Desk.'
	);
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
	{#if key === 'title'}<PacketName packet={row} />{#if row.put && row.put !== lies}<span
				class="ml-2 text-[13px] text-quiet">in the archive</span
			>{/if}{#if row.amendedBy}<a class="ml-2 text-[13px] text-copper underline" href="/packets/{row.amendedBy}"
				>amended; what holds</a
			>{/if}{#if row.found}<FoundAt found={row.found} />{/if}
	{:else if key === 'people'}<Thread thread={row.thread} now={row.endedAt ?? row.sentAt} ended />
	{:else if key === 'how'}<span class="{TONE[row.status]} font-semibold">{row.status}</span>
	{:else if key === 'ended'}{row.endedAt ? moment(row.endedAt, zone) : ''}
	{:else if key === 'sent'}{moment(row.sentAt, zone)}
	{:else if key === 'goes'}{row.putAt ? day(goesOn(row.putAt), zone, data.now) : ''}
	{:else if key === 'type'}{row.type}
	{:else if key === 'folder'}{row.folder}
	{:else if key === 'term'}{row.termEnd ? day(`${row.termEnd}T12:00:00Z`, zone, data.now) : ''}
	{:else if key === 'kept'}{row.keptUntil ? day(`${row.keptUntil}T12:00:00Z`, zone, data.now) : ''}
	{:else if key === 'own reference'}{row.ownReference}
	{:else if key === 'template'}{row.templateTitle}
	{:else if key === 'size'}{row.size > 0 ? size(row.size) : ''}
	{:else if key === 'reference'}<span class="font-mono text-[13px]">{row.reference}</span>
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
		<Places mayAct={data.mayAct} />
		<div class="flex gap-2">
			<Filters of="ended" filter={data.asked.filter ?? {}} onfilter={(filter) => go({ ...data.asked, filter })} />
			<a class="chip" href="/verify">Verify…</a>
			<Views views={kept.settings.views} query={data.query} onkeep={(views) => kept.keep({ views })} />
		</div>
	</div>
	<Table
		label={lies ? `Packets in the ${lies}` : 'Packets that have ended'}
		columns={COLUMNS}
		rows={paged.rows}
		{cell}
		{order}
		onorder={putInOrder}
		total={data.count}
		more={paged.next ? () => paged.more() : null}
		hidden={kept.settings.hidden}
		bind:chosen
		name={(row) => row.title}
		onhide={(hidden) => kept.keep({ hidden })}
		onopen={(row) => void goto(`/packets/${row.id}`)}
		estimate={54}
	>
		{#snippet act()}<Chosen
				rows={chosenRows}
				{lies}
				folders={data.folders}
				types={data.types}
				mayAct={data.mayAct}
				ondone={invalidateAll}
			/>{/snippet}
		{#snippet empty()}
			<p class="max-w-md py-8 font-serif text-quiet">
				{data.search
					? `Nothing ${lies ? `in the ${lies}` : 'finished'} has the words “${data.search}”.${lies ? '' : ' What is still out is on the Desk.'}`
					: EMPTY}
			</p>
		{/snippet}
	</Table>
	{#if lies === 'bin'}
		{#if data.drafts.length > 0}
			<h2 class="border-b border-hairline pt-6 pb-1 text-[16px]">Your drafts in the bin</h2>
			<ul>
				{#each data.drafts as draft (draft.id)}
					<li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hairline py-2">
						<span class="min-w-48 flex-1 font-semibold wrap-anywhere">{draft.title}</span>
						<span class="text-[14px] text-quiet">goes for good {day(goesOn(draft.binnedAt), zone, data.now)}</span>
						<button class="button" onclick={() => takeBack(draft.id)}>Take back</button>
					</li>
				{/each}
			</ul>
		{/if}
		<p class="pt-4 text-[14px]">
			Templates have a bin of their own, <a class="text-thread underline" href="/templates?show=bin"
				>among the templates</a
			>.
		</p>
	{/if}
</main>
