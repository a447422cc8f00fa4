<script lang="ts">
	import { ArrowDown, ArrowUp, FileSymlink, Plus, Trash2 } from '@lucide/svelte';
	import type { Paper } from '../../core/packet';
	import type { Adding } from './adding.svelte';
	import type { Bench } from './bench.svelte';
	import { detach, movePaperTo, removePaper } from './edits';
	import { movedPage, pagesAsTheyAre, turned } from './pages';
	import SmallPage from './SmallPage.svelte';
	import { weaveOf } from './weave';

	/**
	 * The documents and their pages, small, to be dragged into another order; a mark in each person's weave shows whose
	 * fields are where. What dragging does, the buttons do as well.
	 */
	let { bench, adding, ongo }: { bench: Bench; adding: Adding; ongo: (key: string) => void } = $props();

	const plan = $derived(bench.plan);
	const locked = $derived(bench.isLocked('papers'));
	const busy = $derived(adding.busy);
	let input: HTMLInputElement;
	let exchange: HTMLInputElement;
	let exchanging = $state.raw<Paper | null>(null);
	/** what is being dragged: a whole document, or one page of it */
	let dragged = $state.raw<{ paper: string; page: number | null } | null>(null);

	function owners(paper: string, page: number): (string | null)[] {
		const here = plan.fields.filter((f) => f.paper === paper && f.page === page);
		return [...new Set(here.map((f) => f.person))].sort();
	}
	function move(paper: Paper, to: number) {
		bench.change('move a document', movePaperTo(plan, paper.id, to));
	}
	function turn(paper: Paper, page: number) {
		void adding.reorder(paper, turned(pagesAsTheyAre(paper), page), 'turn a page');
	}
	function movePage(paper: Paper, page: number, to: number) {
		if (to >= 0 && to < paper.pages.length && to !== page)
			void adding.reorder(paper, movedPage(pagesAsTheyAre(paper), page, to), 'move a page');
	}
	function leaveOut(paper: Paper, page: number) {
		void adding.reorder(
			paper,
			pagesAsTheyAre(paper).filter((one) => one.from !== page),
			'leave a page out'
		);
	}
	function drop(event: DragEvent, paper: Paper, page: number | null) {
		const what = dragged;
		dragged = null;
		if (!what) return;
		event.preventDefault();
		event.stopPropagation();
		if (what.page === null) {
			const moved = plan.papers.find((p) => p.id === what.paper);
			if (moved && moved.id !== paper.id) move(moved, plan.papers.indexOf(paper));
		} else if (what.paper === paper.id && page !== null) movePage(paper, what.page, page);
	}
	const over = (event: DragEvent) => {
		if (dragged) event.preventDefault();
	};
</script>

<section aria-label="Papers" class="relative h-full overflow-y-auto px-3 py-2.5">
	<p class="pb-1 text-[14px] text-quiet">Papers{plan.papers.length > 0 ? ` · ${plan.papers.length}` : ''}</p>
	{#each plan.papers as paper, i (paper.id)}
		<!-- svelte-ignore a11y_no_static_element_interactions (dragging; the arrows do the same) -->
		<div class="pb-3" ondragover={over} ondrop={(event) => drop(event, paper, null)}>
			<h2
				class="cursor-grab font-sans text-[14px] leading-[18px] font-semibold break-words"
				draggable={!locked}
				ondragstart={() => (dragged = { paper: paper.id, page: null })}
				ondragend={() => (dragged = null)}
			>
				{paper.name}
			</h2>
			{#if !locked}
				<p class="flex pb-1">
					<button
						class="plain"
						disabled={i === 0}
						aria-label="Move {paper.name} up"
						title="Move up"
						onclick={() => move(paper, i - 1)}><ArrowUp size={14} /></button
					>
					<button
						class="plain"
						disabled={i === plan.papers.length - 1}
						aria-label="Move {paper.name} down"
						title="Move down"
						onclick={() => move(paper, i + 1)}><ArrowDown size={14} /></button
					>
					<button
						class="plain"
						disabled={busy !== ''}
						aria-label="Exchange {paper.name}"
						title="Exchange for another version; fields follow their words"
						onclick={() => {
							exchanging = paper;
							exchange.click();
						}}><FileSymlink size={14} /></button
					>
					<button
						class="plain"
						aria-label="Take {paper.name} out"
						title="Take out"
						onclick={() => bench.change('take a document out', removePaper(plan, paper.id))}
						><Trash2 size={14} /></button
					>
				</p>
			{/if}
			<ol>
				{#each paper.pages as _, number (number)}
					<SmallPage
						{paper}
						{number}
						owners={owners(paper.id, number).map((owner) => weaveOf(plan, owner))}
						busy={busy !== ''}
						{locked}
						{ongo}
						onturn={() => turn(paper, number)}
						onmove={(to) => movePage(paper, number, to)}
						onleave={() => leaveOut(paper, number)}
						ondrag={(is) => (dragged = is ? { paper: paper.id, page: number } : null)}
						{over}
						ondrop={(event) => drop(event, paper, number)}
					/>
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
		accept=".pdf,.docx,.png,.jpg,.jpeg,application/pdf,image/png,image/jpeg"
		multiple
		tabindex="-1"
		aria-label="Add documents"
		onchange={() => {
			void adding.add([...(input.files ?? [])]);
			input.value = '';
		}}
	/>
	<input
		bind:this={exchange}
		class="unseen"
		type="file"
		accept=".pdf,.docx,.png,.jpg,.jpeg,application/pdf,image/png,image/jpeg"
		multiple
		tabindex="-1"
		aria-label="Another version"
		onchange={() => {
			const files = [...(exchange.files ?? [])];
			if (exchanging && files.length > 0) void adding.exchange(exchanging, files);
			exchange.value = '';
		}}
	/>
	{#if !locked}
		<button class="button w-full" disabled={busy !== ''} onclick={() => input.click()}
			><Plus size={15} aria-hidden="true" /> Document</button
		>
		<label class="flex items-start gap-1.5 pt-2 text-[13px] leading-[18px] text-quiet"
			><input type="checkbox" class="mt-0.5" bind:checked={adding.together} /> pictures together as one</label
		>
	{:else}<p class="text-[13px] text-quiet">{bench.correcting ? 'As they were sent.' : 'Set by the template.'}</p>{/if}
	<p class="pt-2 text-[13px] leading-[18px] break-words text-quiet" role="status">
		{busy ? `Working on “${busy}”…` : ''}
	</p>
</section>
