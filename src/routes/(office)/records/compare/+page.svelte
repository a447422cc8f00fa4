<script lang="ts">
	import { goto } from '$app/navigation';
	import Choice from '$lib/ui/parts/Choice.svelte';

	let { data } = $props();
	const NAMES = ['a', 'b'] as const;
	const count = $derived(data.differences.length + data.more);

	/** Another document of a side, or the sides the other way round, as an address. */
	const query = (sides: { id: string; paper: string }[]) =>
		`?${sides.map(({ id, paper }, i) => `${NAMES[i]}=${id}&${NAMES[i]}-paper=${paper}`).join('&')}`;
	const choose = (at: number, paper: string) =>
		void goto(query(data.sides.map((side, i) => (i === at ? { ...side, paper } : side))), {
			noScroll: true,
			keepFocus: true
		});
	const at = (before: number | null, after: number | null) =>
		before !== null && after !== null && before !== after
			? `page ${before + 1}, now ${after + 1}`
			: `page ${(after ?? before ?? 0) + 1}`;
</script>

<svelte:head><title>What differs · Records · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-4xl px-6 py-5">
	<h1 class="text-[19px]">What differs</h1>
	<div class="flex flex-wrap items-end gap-x-6 gap-y-3 py-3">
		{#each data.sides as side, i (NAMES[i])}
			<div class="min-w-0">
				<p class="pb-1 text-[14px]">
					<span class="text-quiet">{i === 0 ? 'From' : 'To'}</span>
					<a class="text-thread underline" href="/packets/{side.id}">{side.title}</a>
					<span class="font-mono text-[13px] text-quiet">{side.reference}</span>
				</p>
				<Choice
					label={i === 0 ? 'Document before' : 'Document after'}
					unseen
					value={side.paper}
					options={side.papers.map(({ id, name }): [string, string] => [id, name])}
					onchoose={(paper) => choose(i, paper)}
				/>
			</div>
		{/each}
		<a class="button" href={query([...data.sides].reverse())}>The other way round</a>
	</div>
	<p role="status" class="border-b border-hairline pb-2 text-quiet">
		{count === 0
			? 'Their words are the same, one by one.'
			: `${count === 1 ? 'One place differs' : `${count} places differ`}, by their words.${data.more > 0 ? ` The first ${data.differences.length} are shown.` : ''}`}
	</p>
	<ol>
		{#each data.differences as one, i (i)}
			<li class="border-b border-hairline py-2.5">
				<p class="text-[13px] text-quiet">{at(one.pageBefore, one.pageAfter)}</p>
				<p class="font-serif wrap-anywhere">
					{one.lead ? `…${one.lead}` : ''}
					{#if one.struck}<del class="text-brick">{one.struck}</del>{/if}
					{#if one.fresh}<ins class="bg-wash font-semibold text-thread">{one.fresh}</ins>{/if}
					{one.tail ? `${one.tail}…` : ''}
				</p>
			</li>
		{/each}
	</ol>
</main>
