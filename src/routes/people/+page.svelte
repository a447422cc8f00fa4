<script lang="ts">
	import { day } from '$lib/ui/dates';
	import PacketName from '$lib/ui/lists/PacketName.svelte';
	import Thread from '$lib/ui/thread/Thread.svelte';

	let { data } = $props();
	const zone = $derived(data.organisation.zone);
	const who = $derived(`name=${encodeURIComponent(data.name)}&email=${encodeURIComponent(data.email)}`);
</script>

<svelte:head><title>{data.name || data.email} · Pellum</title></svelte:head>
<main id="main" class="flex flex-wrap gap-8 px-6 py-5">
	<section class="min-w-0 flex-[3_1_560px]" aria-labelledby="who">
		<h1 id="who" class="text-[19px]">{data.name || data.email}</h1>
		<p class="pb-3 break-all text-quiet">{data.email}</p>
		<table class="list">
			<thead><tr><th>Packet</th><th>Who takes part</th><th>State</th><th>Sent</th></tr></thead>
			<tbody>
				{#each data.rows as row (row.id)}
					<tr class="hover:bg-wash">
						<td><PacketName packet={row} /></td>
						<td><Thread thread={row.thread} now={row.endedAt ?? data.now} ended={row.endedAt !== null} /></td>
						<td>{row.status}</td>
						<td class="whitespace-nowrap">{day(row.sentAt, zone, data.now)}</td>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if data.rows.length === 0}<p class="py-8 font-serif text-quiet">
				Nobody with this address has taken part in anything yet.
			</p>{/if}
	</section>
	{#if data.account.level !== 'viewer'}
		<section class="w-full min-[900px]:w-[300px]" aria-labelledby="send">
			<h2 id="send" class="pb-2 text-[17px]">Send them something</h2>
			<ul class="grid gap-2">
				{#each data.templates as template (template.id)}
					<li>
						<a class="button w-full justify-start!" href="/templates/{template.id}/use?{who}">{template.title}</a>
					</li>
				{:else}<li class="text-quiet">There is no template in use yet.</li>{/each}
			</ul>
		</section>
	{/if}
</main>
