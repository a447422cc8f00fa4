<script lang="ts">
	import ListSearch from '$lib/ui/lists/ListSearch.svelte';
	import Pager from '$lib/ui/lists/Pager.svelte';
	import { moment } from '$lib/ui/dates';
	import PacketName from '$lib/ui/lists/PacketName.svelte';
	import Thread from '$lib/ui/thread/Thread.svelte';

	let { data } = $props();
	const TONE: Record<string, string> = {
		completed: 'text-moss',
		declined: 'text-brick',
		withdrawn: 'text-quiet',
		expired: 'text-copper'
	};
	const zone = $derived(data.organisation.zone);
</script>

<svelte:head><title>Records · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<div class="flex flex-wrap items-end gap-6 pb-3">
		<h1 class="text-[19px]">Records</h1>
		<ListSearch label="Search records" placeholder="Title, person, address or reference" value={data.search} wide />
	</div>
	<div class="overflow-x-auto">
		<table class="list">
			<thead><tr><th>Packet</th><th>Who took part</th><th>How it ended</th><th>When</th><th>Copies</th></tr></thead>
			<tbody>
				{#each data.rows as row (row.id)}
					<tr class="hover:bg-wash">
						<td><PacketName packet={row} /></td>
						<td><Thread thread={row.thread} now={row.endedAt ?? row.sentAt} ended /></td>
						<td class="{TONE[row.status]} font-semibold">{row.status}</td>
						<td class="whitespace-nowrap">{row.endedAt ? moment(row.endedAt, zone) : ''}</td>
						<td
							>{#if row.status === 'completed'}<a href="/packets/{row.id}" class="text-thread"
									>Copies of {row.reference}</a
								>{/if}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
	{#if data.rows.length === 0}
		<p class="max-w-md py-10 font-serif text-quiet">
			{data.search
				? `Nothing finished has the words “${data.search}”. What is still out is on the Desk.`
				: 'Here is everything that has ended: completed, declined, withdrawn or out of time. Nothing has yet.'}
		</p>
	{/if}
	<Pager
		offset={data.offset}
		shown={data.rows.length}
		page={data.page}
		to={(from) => `?q=${encodeURIComponent(data.search)}&from=${from}`}
		before="Newer rows"
		after="Older rows"
	/>
</main>
