<script lang="ts">
	import { day } from '$lib/ui/dates';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';

	let { data } = $props();
	const zone = $derived(data.organisation.zone);

	$effect(() => keepCurrent());
</script>

<svelte:head><title>Batches · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<h1 class="pb-3 text-[19px]">Batches</h1>
	{#if data.rows.length === 0}
		<p class="max-w-md py-10 font-serif text-quiet">
			A batch sends one template to many people, each a packet of their own, from a sheet with a row for each. Choose a
			template under <a class="text-thread underline" href="/templates">Templates</a> and press “From a sheet…”.
		</p>
	{:else}
		<div class="overflow-x-auto">
			<table class="list">
				<thead><tr><th>Sheet</th><th>Template</th><th>When</th><th>Rows</th><th>Gone</th></tr></thead>
				<tbody>
					{#each data.rows as row (row.id)}
						<tr class="hover:bg-wash">
							<td><a href="/batches/{row.id}" class="font-semibold no-underline hover:underline">{row.name}</a></td>
							<td>{row.title}</td>
							<td class="whitespace-nowrap">{day(row.madeAt, zone, data.now)}</td>
							<td>{row.rows}</td>
							<td>{row.gone}{row.running === 1 ? ', being sent' : ''}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
	{/if}
</main>
