<script lang="ts">
	import FirstSteps from '$lib/ui/desk/FirstSteps.svelte';
	import OutNow from '$lib/ui/desk/OutNow.svelte';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import { KeptList } from '$lib/ui/lists/kept.svelte';
	import NeedCard from '$lib/ui/lists/NeedCard.svelte';

	let { data } = $props();
	const zone = $derived(data.organisation.zone);
	const mayAct = $derived(data.account.level !== 'viewer');
	const live = $derived(`${data.count} out, ${data.needs.length} need you`);

	$effect(() => keepCurrent());

	const kept = new KeptList('desk', () => data.settings);
</script>

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
					kept.keep({ hidden: [...kept.settings.hidden, 'steps'] });
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
	<OutNow
		list={data.list}
		asked={data.asked}
		query={data.query}
		count={data.count}
		batches={data.batches}
		me={data.account}
		{mayAct}
		{zone}
		now={data.now}
		settings={kept.settings}
		onkeep={kept.keep}
	/>
</main>
