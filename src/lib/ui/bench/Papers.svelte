<script lang="ts">
	import { ArrowDown, ArrowUp, Plus, Trash2 } from '@lucide/svelte';
	import PagePicture from '../pages/PagePicture.svelte';
	import type { Bench } from './bench.svelte';
	import { detach, movePaper, removePaper } from './edits';
	import { weaveOf } from './weave';

	/** The documents and their pages, small; a mark in each person's weave shows whose fields are where. */
	let {
		bench,
		busy,
		ongo,
		onadd
	}: { bench: Bench; busy: string; ongo: (key: string) => void; onadd: (files: File[]) => void } = $props();

	const plan = $derived(bench.plan);
	let input: HTMLInputElement;

	function owners(paper: string, page: number): (string | null)[] {
		const here = plan.fields.filter((f) => f.paper === paper && f.page === page);
		return [...new Set(here.map((f) => f.person))].sort();
	}
</script>

<section aria-label="Papers" class="relative h-full overflow-y-auto px-3 py-2.5">
	<p class="pb-1 text-[14px] text-quiet">Papers{plan.papers.length > 0 ? ` · ${plan.papers.length}` : ''}</p>
	{#each plan.papers as paper, i (paper.id)}
		<div class="pb-3">
			<h2 class="font-sans text-[14px] leading-[18px] font-semibold break-words">{paper.name}</h2>
			<p class="flex pb-1">
				<button
					class="plain"
					disabled={i === 0}
					aria-label="Move {paper.name} up"
					title="Move up"
					onclick={() => bench.change('move a document', movePaper(plan, paper.id, -1))}><ArrowUp size={14} /></button
				>
				<button
					class="plain"
					disabled={i === plan.papers.length - 1}
					aria-label="Move {paper.name} down"
					title="Move down"
					onclick={() => bench.change('move a document', movePaper(plan, paper.id, 1))}><ArrowDown size={14} /></button
				>
				<button
					class="plain"
					aria-label="Take {paper.name} out"
					title="Take out"
					onclick={() => bench.change('take a document out', removePaper(plan, paper.id))}><Trash2 size={14} /></button
				>
			</p>
			<ol>
				{#each paper.pages as page, number (number)}
					{@const scale = 78 / (page.rotate % 180 === 0 ? page.width : page.height)}
					<li class="pb-1">
						<button
							class="mx-auto block border border-hairline hover:border-thread"
							aria-label="Go to {paper.name}, page {number + 1}"
							onclick={() => ongo(`${paper.id}-${number}`)}
						>
							<PagePicture url="/papers/{paper.digest}" {number} {page} {scale} label="" later />
						</button>
						<p class="flex items-center justify-center gap-1 text-[13px] leading-5 text-quiet">
							{number + 1}
							{#each owners(paper.id, number) as owner (owner)}<span
									class="inline-block h-2.5 w-2.5"
									style:background={weaveOf(plan, owner)}
								></span>{/each}
						</p>
					</li>
				{/each}
			</ol>
		</div>
	{/each}
	{#if plan.attachments.length > 0}
		<p class="pb-1 text-[14px] text-quiet">Attached, unchanged</p>
		<ul class="pb-3">
			{#each plan.attachments as file (file.id)}
				<li class="flex items-start gap-1 text-[14px] leading-[18px]">
					<a class="flex-1 break-words underline" href="/papers/{file.digest}" target="_blank" rel="noopener"
						>{file.name}</a
					>
					<button
						class="plain"
						aria-label="Take {file.name} out"
						title="Take out"
						onclick={() => bench.change('take a file out', detach(plan, file.id))}><Trash2 size={14} /></button
					>
				</li>
			{/each}
		</ul>
	{/if}
	<input
		bind:this={input}
		class="unseen"
		type="file"
		accept="application/pdf,.pdf"
		multiple
		tabindex="-1"
		aria-label="Add documents"
		onchange={() => {
			onadd([...(input.files ?? [])]);
			input.value = '';
		}}
	/>
	<button class="button w-full" disabled={busy !== ''} onclick={() => input.click()}
		><Plus size={15} aria-hidden="true" /> PDF</button
	>
	<p class="pt-2 text-[13px] leading-[18px] break-words text-quiet" role="status">
		{busy ? `Taking in “${busy}”…` : ''}
	</p>
</section>
