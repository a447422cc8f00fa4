<script lang="ts">
	import type { PacketView } from '../../core/packet';
	import { moment } from '../dates';
	import Choice from '../parts/Choice.svelte';
	import More from '../parts/More.svelte';
	import type { Column, Order } from '../parts/table/columns';
	import Table from '../parts/table/Table.svelte';

	/** Every event in plain words, newest first; digests, addresses and devices behind “more”. */
	let { record, people, zone }: { record: PacketView['record']; people: { id: string; name: string }[]; zone: string } =
		$props();

	type Event = PacketView['record'][number] & { id: string };
	let only = $state('');
	let order = $state<Order | null>(null);
	const shown = $derived(
		record
			.filter((event) => only === '' || event.person === only)
			.map((event): Event => ({ ...event, id: String(event.n) }))
	);
	const COLUMNS: Column<Event>[] = [
		{ key: 'what', name: 'What happened, and when', by: (event) => event.n, fixed: true }
	];
</script>

{#snippet cell(event: Event)}
	<span class="block wrap-anywhere">{event.said}</span>
	<span class="flex flex-wrap items-start gap-x-3">
		<time class="text-[13px] leading-6 text-quiet" datetime={event.at} title={event.at}>{moment(event.at, zone)}</time>
		{#if event.technical.length > 0}
			<More of={event.said}>
				<dl class="grid grid-cols-[auto_1fr] gap-x-3 pb-1 text-[13px] text-quiet">
					{#each event.technical as [name, value] (name)}<dt>{name}</dt>
						<dd class="font-mono wrap-anywhere">{value}</dd>{/each}
				</dl>
			</More>
		{/if}
	</span>
{/snippet}

<div class="flex items-end justify-between gap-3 pb-1">
	<h2 id="record" class="text-[16px]">Record</h2>
	<Choice
		label="Show the record of"
		unseen
		narrow
		value={only}
		options={[['', 'everyone'], ...people.map(({ id, name }): [string, string] => [id, name || 'not named yet'])]}
		onchoose={(id) => (only = id)}
	/>
</div>
<Table label="Record" columns={COLUMNS} rows={shown} {cell} bind:order estimate={60} />
