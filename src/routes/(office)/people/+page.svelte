<script lang="ts">
	import { goto } from '$app/navigation';
	import { day } from '$lib/ui/dates';
	import type { Column, Order } from '$lib/ui/parts/table/columns';
	import Table from '$lib/ui/parts/table/Table.svelte';
	import PacketName from '$lib/ui/lists/PacketName.svelte';
	import HeldOn from '$lib/ui/people/HeldOn.svelte';
	import Thread from '$lib/ui/thread/Thread.svelte';

	let { data, form } = $props();
	type Row = (typeof data.rows)[number];
	let order = $state<Order | null>(null);
	const COLUMNS: Column<Row>[] = [
		{ key: 'title', name: 'Packet', by: (row) => row.title, fixed: true },
		{ key: 'thread', name: 'Who takes part' },
		{ key: 'state', name: 'State', by: (row) => row.status },
		{ key: 'sent', name: 'Sent', by: (row) => row.sentAt, look: 'whitespace-nowrap' }
	];
	const zone = $derived(data.organisation.zone);
	const who = $derived(`name=${encodeURIComponent(data.name)}&email=${encodeURIComponent(data.email)}`);
</script>

{#snippet cell(row: Row, key: string)}
	{#if key === 'title'}<PacketName packet={row} />{#if row.intake !== null}<span class="block text-[13px] text-quiet"
				>through the intake “{row.intake}”</span
			>{/if}
	{:else if key === 'thread'}<Thread thread={row.thread} now={row.endedAt ?? data.now} ended={row.endedAt !== null} />
	{:else if key === 'state'}{row.status}
	{:else}{day(row.sentAt, zone, data.now)}{/if}
{/snippet}

<svelte:head><title>{data.name || data.email} · Pellum</title></svelte:head>
<main id="main" class="flex flex-wrap gap-8 px-6 py-5">
	<section class="min-w-0 flex-[3_1_560px]" aria-labelledby="who">
		<h1 id="who" class="text-[19px]">{data.name || data.email}</h1>
		<p class="pb-3 break-all text-quiet">{data.email}</p>
		<Table
			label="Packets of this person"
			columns={COLUMNS}
			rows={data.rows}
			{cell}
			bind:order
			onopen={(row) => void goto(`/packets/${row.id}`)}
			estimate={54}
		>
			{#snippet empty()}<p class="py-8 font-serif text-quiet">
					Nobody with this address has taken part in anything yet.
				</p>{/snippet}
		</Table>
	</section>
	{#if data.account.level !== 'viewer'}
		<div class="grid w-full content-start gap-8 min-[900px]:w-[300px]">
			<section aria-labelledby="send">
				<h2 id="send" class="pb-2 text-[17px]">Send them something</h2>
				<ul class="grid gap-2">
					{#each data.templates as template (template.id)}
						<li>
							<a class="button w-full justify-start!" href="/templates/{template.id}/use?{who}">{template.title}</a>
						</li>
					{:else}<li class="text-quiet">There is no template in use yet.</li>{/each}
				</ul>
			</section>
			{#if data.mayForget}<HeldOn email={data.email} answered={form} />{/if}
		</div>
	{/if}
</main>
