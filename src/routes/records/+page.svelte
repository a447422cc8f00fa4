<script lang="ts">
	import { moment } from '$lib/ui/dates';
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
		<form method="GET" role="search" class="flex gap-2">
			<label class="unseen" for="q">Search records</label>
			<input
				id="q"
				name="q"
				class="input w-80"
				type="search"
				value={data.search}
				placeholder="Title, person, address or reference"
			/>
			<button class="button">Search</button>
		</form>
	</div>
	<div class="overflow-x-auto">
		<table class="list">
			<thead><tr><th>Packet</th><th>Who took part</th><th>How it ended</th><th>When</th><th>Copies</th></tr></thead>
			<tbody>
				{#each data.rows as row (row.id)}
					<tr class="hover:bg-wash">
						<td
							><a href="/packets/{row.id}" class="font-semibold no-underline hover:underline">{row.title}</a><br /><span
								class="font-mono text-[13px] text-quiet">{row.reference}</span
							></td
						>
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
	<p class="flex gap-3 pt-3">
		{#if data.offset > 0}<a
				class="button"
				href="?q={encodeURIComponent(data.search)}&from={Math.max(0, data.offset - data.page)}">Newer rows</a
			>{/if}
		{#if data.rows.length === data.page}<a
				class="button"
				href="?q={encodeURIComponent(data.search)}&from={data.offset + data.page}">Older rows</a
			>{/if}
	</p>
</main>
