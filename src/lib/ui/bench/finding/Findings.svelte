<script lang="ts">
	import type { Finding } from '../../../core/packet';
	import type { Bench } from '../bench.svelte';

	/** What stands in the way of sending, and what is worth a look: each leads to its place, and is cured in one press. */
	let { bench, onjump }: { bench: Bench; onjump: (finding: Finding) => void } = $props();

	const parts = $derived(
		[
			{ title: 'Before this can go', list: bench.grave },
			{ title: 'Worth a look', list: bench.findings.filter((f) => f.mild) }
		].filter((part) => part.list.length > 0)
	);
</script>

<div class="flex w-full">
	<section
		aria-label="Before this can go"
		class="pointer-events-auto ml-auto max-h-[45dvh] w-[430px] max-w-full overflow-y-auto rounded-sm border border-hairline bg-sheet p-3 shadow-(--float)"
	>
		{#each parts as { title, list } (title)}
			<h2 class="pt-1 pb-1 text-[15px]">{title}</h2>
			<ul>
				{#each list as finding, i (i)}<li class="flex items-start gap-1">
						<button
							class="flex-1 cursor-pointer rounded-sm px-2 py-1 text-left hover:bg-wash"
							onclick={() => onjump(finding)}>{finding.say}</button
						>
						{#if finding.cure}<button
								class="button mt-0.5 shrink-0"
								onclick={() => bench.change(finding.cure!.say.toLowerCase(), finding.cure!.plan(bench.plan))}
								>{finding.cure.say}</button
							>{/if}
					</li>{/each}
			</ul>
		{/each}
	</section>
</div>
