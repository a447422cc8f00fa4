<script lang="ts">
	import { moment } from '$lib/ui/dates';

	let { data } = $props();
</script>

<svelte:head><title>Office record · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<h1 class="border-b border-hairline pb-2 text-[19px]">Office record</h1>
	<p class="pt-2 text-[14px] text-quiet">
		Who signed in, who was refused, and every change to accounts, settings and keys. Each line is bound to those before
		it, so that none can be changed or taken out unseen; <span class="font-mono">npm run check-data</span> looks.
	</p>
	{#if data.events.length === 0}
		<p class="pt-6">Nothing yet.</p>
	{:else}
		<table class="mt-3 w-full text-left text-[15px]">
			<thead class="text-[14px] text-quiet"
				><tr
					><th class="py-1.5 pr-4 font-normal">When</th><th class="py-1.5 pr-4 font-normal">Who</th><th
						class="py-1.5 pr-4 font-normal">What</th
					><th class="py-1.5 font-normal">From</th></tr
				></thead
			>
			<tbody>
				{#each data.events as event (event.n)}
					<tr class="border-t border-hairline align-top">
						<td class="py-1.5 pr-4 whitespace-nowrap">{moment(event.at, data.organisation.zone)}</td>
						<td class="py-1.5 pr-4">{event.who}</td>
						<td class="py-1.5 pr-4 wrap-anywhere"
							>{event.say}{event.about && event.about !== event.who ? ` (${event.about})` : ''}</td
						>
						<td class="py-1.5 font-mono text-[13px] wrap-anywhere">{event.from}</td>
					</tr>
				{/each}
			</tbody>
		</table>
		<p class="flex gap-4 pt-4">
			{#if data.next}<a class="button" href="/settings/record?before={data.next}">Earlier</a>{/if}
			<a class="text-thread underline" href="/settings/record">The newest</a>
		</p>
	{/if}
</main>
