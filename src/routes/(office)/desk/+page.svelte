<script lang="ts">
	import { goto } from '$app/navigation';
	import { untrack } from 'svelte';
	import { day } from '$lib/ui/dates';
	import Beside from '$lib/ui/desk/Beside.svelte';
	import FirstSteps from '$lib/ui/desk/FirstSteps.svelte';
	import { having, spent } from '$lib/ui/desk/having';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import Filters from '$lib/ui/lists/Filters.svelte';
	import { keepList } from '$lib/ui/lists/kept';
	import NeedCard from '$lib/ui/lists/NeedCard.svelte';
	import PacketName from '$lib/ui/lists/PacketName.svelte';
	import { Paged } from '$lib/ui/lists/paged.svelte';
	import { orderOf, sortOf } from '$lib/ui/lists/order';
	import Views from '$lib/ui/lists/Views.svelte';
	import type { Column, Order } from '$lib/ui/parts/table/columns';
	import Table from '$lib/ui/parts/table/Table.svelte';
	import Thread from '$lib/ui/thread/Thread.svelte';
	import { askedOf, type Filter } from '$lib/core/packet';

	let { data } = $props();
	const zone = $derived(data.organisation.zone);
	const mayAct = $derived(data.account.level !== 'viewer');
	const live = $derived(`${data.count} out, ${data.needs.length} need you`);
	const filter = $derived(data.asked.filter ?? {});
	const order = $derived(orderOf(data.asked));

	$effect(() => keepCurrent());

	type Row = (typeof data.list.rows)[number];
	const paged = new Paged<Row>(
		'/desk/rows',
		untrack(() => data.list),
		untrack(() => data.query)
	);
	$effect(() => void paged.begin(data.list, data.query));

	let settings = $derived(data.settings);
	const keep = (change: Partial<typeof data.settings>) => {
		settings = { ...settings, ...change };
		void keepList('desk', settings);
	};
	let open = $state<string | null>(null);
	const beside = $derived(paged.rows.find((row) => row.id === open));
	const hidden = $derived(
		beside ? [...settings.hidden, 'spent', 'until', 'folder', 'sender', 'sent'] : settings.hidden
	);

	const COLUMNS: Column<Row>[] = [
		{ key: 'title', name: 'Packet', sorts: true, fixed: true, look: 'max-w-72' },
		{ key: 'thread', name: 'Where it is' },
		{ key: 'wait', name: 'With', sorts: true },
		{ key: 'spent', name: 'Out for' },
		{ key: 'until', name: 'Until', sorts: true, look: 'whitespace-nowrap' },
		{ key: 'folder', name: 'Folder' },
		{ key: 'sender', name: 'Sent by' },
		{ key: 'sent', name: 'Sent', sorts: true, look: 'whitespace-nowrap' }
	];
	/** few columns at first: the others are there for whoever wants them */
	const AT_FIRST = ['folder', 'sender', 'sent'];
	const away = $derived(
		settings.hidden.length === 0 && settings.views.length === 0 ? [...hidden, ...AT_FIRST] : hidden
	);

	const where = (change: { filter?: Filter; order?: Order }) =>
		`?${askedOf({ ...data.asked, ...(change.filter && { filter: change.filter }), ...(change.order && sortOf(change.order)) }).toString()}`;
	const go = (change: { filter?: Filter; order?: Order }) =>
		void goto(where(change), { noScroll: true, keepFocus: true });
	const { only: _only, sender: _sender, ...rest } = $derived(filter);
	const CHIPS = $derived([
		{ name: 'All', filter: rest, here: !filter.only && !filter.sender },
		{ name: 'Sent by you', filter: { ...rest, sender: data.account.id }, here: filter.sender === data.account.id },
		{ name: 'Ending in 3 days', filter: { ...rest, only: 'ending' as const }, here: filter.only === 'ending' },
		{ name: 'Unreachable', filter: { ...rest, only: 'unreachable' as const }, here: filter.only === 'unreachable' }
	]);
	const sender = (id: string) => data.senders.find((one) => one.id === id)?.name ?? '';
	const filtered = $derived(Object.keys(filter).length > 0);
</script>

{#snippet cell(row: Row, key: string)}
	{#if key === 'title'}<PacketName packet={row} />
	{:else if key === 'thread'}<Thread thread={row.thread} now={data.now} width={beside ? 150 : 190} />
	{:else if key === 'wait'}
		{@const shut = row.shutUntil !== null && row.shutUntil > data.now}
		{@const with_ = having(row.thread, data.account.name, data.now)}
		{with_.names}<br /><span class="text-[13px] {shut ? 'text-copper' : with_.tone}"
			>{shut ? 'shut, being put right' : with_.note}</span
		>
	{:else if key === 'spent'}{@const [time, usually] = spent(row.sentAt, data.now, row.usualHours).split('; ')}
		<span class="whitespace-nowrap">{time}</span>{#if usually}<br /><span
				class="text-[13px] whitespace-nowrap text-quiet">{usually}</span
			>{/if}
	{:else if key === 'until'}{row.deadline ? day(row.deadline, zone, data.now) : 'open'}
	{:else if key === 'folder'}{row.folder}
	{:else if key === 'sender'}{sender(row.owner)}
	{:else}{day(row.sentAt, zone, data.now)}{/if}
{/snippet}

<svelte:head><title>Desk · Pellum</title></svelte:head>
<main id="main" class="flex min-h-[calc(100dvh-46px)] flex-wrap">
	<section
		aria-labelledby="needs"
		class="w-full border-r border-hairline bg-linen px-5 py-5 min-[900px]:w-[340px] min-[1400px]:w-[392px]"
	>
		{#if data.steps}<FirstSteps
				steps={data.steps}
				onaway={() => {
					data.steps = null;
					keep({ hidden: [...settings.hidden, 'steps'] });
				}}
			/>{/if}
		<h1 id="needs" class="border-b border-hairline pb-2 text-[17px]">
			Needs you <span class="pl-1 text-[14px] font-normal text-quiet">{data.needs.length}</span>
		</h1>
		<p class="unseen" aria-live="polite">{live}</p>
		<ul>
			{#each data.needs as need (JSON.stringify(need))}
				<NeedCard {need} {zone} now={data.now} {mayAct} />
			{:else}
				<li class="py-6 font-serif text-quiet">
					Nothing waits for you. What is out looks after itself until somebody needs a hand.
				</li>
			{/each}
		</ul>
	</section>
	<section aria-labelledby="out" class="min-w-0 flex-1 px-[22px] py-5">
		<h2 id="out" class="pb-3 text-[17px]">
			Out now <span class="pl-1 text-[14px] font-normal text-quiet"
				>{data.count}
				{data.count === 1 ? 'packet' : 'packets'}{order.key === 'wait' && !order.down
					? ', longest wait first'
					: ''}</span
			>
		</h2>
		<Table
			label="Packets that are out"
			columns={COLUMNS}
			rows={paged.rows}
			id={(row) => row.id}
			{cell}
			{order}
			onorder={(next) => go({ order: next })}
			more={paged.next ? () => paged.more() : null}
			hidden={away}
			onhide={(next) => keep({ hidden: next.filter((key) => !beside || settings.hidden.includes(key)) })}
			onopen={(row) => (open = row.id)}
			current={open}
			estimate={54}
		>
			{#snippet above()}
				<nav aria-label="Show" class="flex flex-wrap gap-2">
					{#each CHIPS as chip (chip.name)}
						<a class="chip" href={where({ filter: chip.filter })} data-sveltekit-noscroll aria-current={chip.here}
							>{chip.name}</a
						>
					{/each}
				</nav>
				<Filters
					filter={rest}
					templates={data.templates}
					folders={data.folders}
					senders={data.senders}
					onfilter={(next) => go({ filter: { ...next, ...(filter.only && { only: filter.only }) } })}
				/>
				<Views views={settings.views} query={data.query} onkeep={(views) => keep({ views })} />
			{/snippet}
			{#snippet empty()}
				<p class="max-w-md py-8 font-serif text-quiet">
					{filtered
						? 'None of the packets that are out is like this.'
						: 'Nothing is out. “New packet” prepares a document for somebody to sign; once sent, it is followed here.'}
				</p>
			{/snippet}
		</Table>
	</section>
	{#if beside}<Beside
			packet={beside}
			sender={sender(beside.owner)}
			{zone}
			now={data.now}
			{mayAct}
			onclose={() => (open = null)}
		/>{/if}
</main>
