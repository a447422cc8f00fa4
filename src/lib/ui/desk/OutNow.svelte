<script lang="ts">
	import { goto } from '$app/navigation';
	import { untrack } from 'svelte';
	import {
		askedOf,
		type BatchLine,
		type Filter,
		type ListSettings,
		type OutRow,
		type PacketsAsked
	} from '../../core/packet';
	import { day } from '../dates';
	import Filters from '../lists/Filters.svelte';
	import { orderOf, sortOf } from '../lists/order';
	import PacketName from '../lists/PacketName.svelte';
	import { Paged, type Page } from '../lists/paged.svelte';
	import Views from '../lists/Views.svelte';
	import type { Column, Order } from '../parts/table/columns';
	import Table from '../parts/table/Table.svelte';
	import Thread from '../thread/Thread.svelte';
	import BatchesOut from './BatchesOut.svelte';
	import Beside from './Beside.svelte';
	import { having, spent } from './having';
	import LikelyBy from './LikelyBy.svelte';

	/** All that is out, page by page, with one of them open beside it. */
	let {
		list,
		asked,
		query,
		count,
		batches,
		me,
		mayAct,
		zone,
		now,
		settings,
		onkeep
	}: {
		/** the first page */
		list: Page<OutRow>;
		asked: PacketsAsked;
		/** the same question as its address has it */
		query: string;
		/** how many are out beside batches, whatever is asked */
		count: number;
		batches: BatchLine[];
		me: { id: string; name: string };
		mayAct: boolean;
		zone: string;
		now: string;
		settings: ListSettings;
		onkeep: (change: Partial<ListSettings>) => void;
	} = $props();

	const filter = $derived(asked.filter ?? {});
	const { only, ...named } = $derived(filter);
	const { sender: _sender, batch, ...rest } = $derived(named);
	const filtered = $derived(Object.keys(filter).length > 0);
	const order = $derived(orderOf(asked));

	const paged = new Paged<OutRow>(
		'/desk/rows',
		untrack(() => list),
		untrack(() => query)
	);
	$effect(() => void paged.begin(list, query));

	let open = $state<string | null>(null);
	const beside = $derived(paged.rows.find((row) => row.id === open));
	/** what there is no room for beside an open packet */
	const WIDE = ['unusual', 'until', 'folder', 'sender', 'sent'];
	const hidden = $derived(beside ? [...new Set([...settings.hidden, ...WIDE])] : settings.hidden);

	/** the packets of one batch come in one order */
	const sorts = $derived(!filter.batch);
	const COLUMNS = $derived<Column<OutRow>[]>([
		{ key: 'title', name: 'Packet', sorts, fixed: true, look: 'max-w-72' },
		{ key: 'thread', name: 'Where it is' },
		{ key: 'wait', name: 'With', sorts: true },
		{ key: 'unusual', name: 'Out for', sorts, mostFirst: true },
		{ key: 'until', name: 'Until', sorts, look: 'whitespace-nowrap' },
		{ key: 'folder', name: 'Folder' },
		{ key: 'sender', name: 'Sent by' },
		{ key: 'sent', name: 'Sent', sorts, look: 'whitespace-nowrap' }
	]);

	const where = (change: { filter?: Filter; order?: Order }) =>
		`?${askedOf({ ...asked, ...(change.filter && { filter: change.filter }), ...(change.order && sortOf(change.order)) }).toString()}`;
	const go = (change: { filter?: Filter; order?: Order }) =>
		void goto(where(change), { noScroll: true, keepFocus: true });
	const CHIPS = $derived([
		...(batch
			? [
					{
						name: `Of ${batches.find(({ id }) => id === batch)?.name ?? 'one batch'}`,
						filter: { batch },
						here: true
					}
				]
			: []),
		{ name: 'All', filter: rest, here: !only && !filter.sender && !batch },
		{ name: 'Sent by you', filter: { ...rest, sender: me.id }, here: filter.sender === me.id },
		{ name: 'Ending in 3 days', filter: { ...rest, only: 'ending' as const }, here: only === 'ending' },
		{ name: 'Unreachable', filter: { ...rest, only: 'unreachable' as const }, here: only === 'unreachable' }
	]);
</script>

{#snippet cell(row: OutRow, key: string)}
	{#if key === 'title'}<PacketName packet={row} />
	{:else if key === 'thread'}<Thread thread={row.thread} {now} width={beside ? 150 : 190} />
	{:else if key === 'wait'}
		{@const shut = row.shutUntil !== null && row.shutUntil > now}
		{@const with_ = having(row.thread, me.name, now)}
		{with_.names}<br /><span class="text-[13px] {shut ? 'text-copper' : with_.tone}"
			>{shut ? 'shut, being put right' : with_.note}</span
		>
	{:else if key === 'unusual'}{@const [time, usually] = spent(row.sentAt, now, row.usualHours).split('; ')}
		<span class="whitespace-nowrap">{time}</span>{#if usually}<br /><span
				class="text-[13px] whitespace-nowrap text-quiet">{usually}</span
			>{/if}
	{:else if key === 'until'}{row.deadline ? day(row.deadline, zone, now) : 'open'}<LikelyBy
			likely={row.likely}
			{zone}
			{now}
		/>
	{:else if key === 'folder'}{row.folder}
	{:else if key === 'sender'}{row.sender}
	{:else}{day(row.sentAt, zone, now)}{/if}
{/snippet}

<section aria-labelledby="out" class="min-w-0 flex-1 px-[22px] py-5">
	<BatchesOut {batches} {zone} {now} />
	<h2 id="out" class="pb-3 text-[17px]">
		Out now <span class="pl-1 text-[14px] font-normal text-quiet"
			>{count}
			{count === 1 ? 'packet' : 'packets'}{order.key === 'wait' && !order.down
				? ', longest wait first'
				: order.key === 'unusual' && order.down
					? ', longest against what is usual first'
					: ''}</span
		>
	</h2>
	<Table
		label="Packets that are out"
		columns={COLUMNS}
		rows={paged.rows}
		{cell}
		{order}
		onorder={(next) => go({ order: next })}
		more={paged.next ? () => paged.more() : null}
		{hidden}
		onhide={(next) =>
			onkeep({ hidden: next.filter((key) => !beside || settings.hidden.includes(key) || !WIDE.includes(key)) })}
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
			<Filters filter={named} onfilter={(next) => go({ filter: { ...next, ...(only && { only }) } })} />
			<Views views={settings.views} {query} onkeep={(views) => onkeep({ views })} />
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
{#if beside}<Beside packet={beside} {zone} {now} {mayAct} onclose={() => (open = null)} />{/if}
