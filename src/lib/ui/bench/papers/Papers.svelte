<script lang="ts">
	import Tip from '../../parts/Tip.svelte';
	import Check from '../../parts/Check.svelte';
	import { Trash2 } from '@lucide/svelte';
	import type { Paper } from '../../../core/packet';
	import type { Adding } from './adding.svelte';
	import type { Bench } from '../bench.svelte';
	import { detach, movePaperTo, removePaper } from '../../../core/plan';
	import { movedPage, pagesAsTheyAre, turned } from '../../../core/plan';
	import Files from '../../parts/Files.svelte';
	import Menu from '../../parts/Menu.svelte';
	import Ordered from '../../parts/Ordered.svelte';
	import SmallPage from './SmallPage.svelte';
	import { weaveOf } from '../weave';

	/**
	 * The documents and their pages, small, to be dragged into another order; a mark in each person's weave shows whose
	 * fields are where. What dragging does, the buttons do as well.
	 */
	let { bench, adding, ongo }: { bench: Bench; adding: Adding; ongo: (key: string) => void } = $props();

	const plan = $derived(bench.plan);
	const locked = $derived(bench.isLocked('papers'));
	const busy = $derived(adding.busy);
	let exchange = $state<Files>();
	let exchanging = $state.raw<Paper | null>(null);
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
	const TAKES = '.pdf,.docx,.png,.jpg,.jpeg,application/pdf,image/png,image/jpeg';
	const pagesOf = (paper: Paper) => paper.pages.map((_, number) => ({ id: `${paper.id} ${number}`, number }));
</script>

<section aria-label="Papers" class="relative h-full overflow-y-auto px-3 py-2.5">
	<p class="pb-1 text-[14px] text-quiet">Papers{plan.papers.length > 0 ? ` · ${plan.papers.length}` : ''}</p>
	{#snippet paperRow(paper: Paper, i: number)}
		<div class="flex items-start gap-1">
			<h2 class="min-w-0 flex-1 cursor-grab font-sans text-[14px] leading-[18px] font-semibold break-words">
				{paper.name}
			</h2>
			{#if !locked}<Menu
					label="⋯"
					hint="More to do with {paper.name}"
					look="plain"
					disabled={busy !== ''}
					entries={[
						...(i > 0 ? [{ name: 'Move up', run: () => move(paper, i - 1) }] : []),
						...(i < plan.papers.length - 1 ? [{ name: 'Move down', run: () => move(paper, i + 1) }] : []),
						{
							name: 'Exchange…',
							note: 'for another version; fields follow their words',
							run: () => {
								exchanging = paper;
								exchange?.choose();
							}
						},
						{
							name: 'Take out',
							grave: true,
							run: () => bench.change('take a document out', removePaper(plan, paper.id))
						}
					]}
				/>{/if}
		</div>
		<Ordered
			label="Pages of {paper.name}"
			items={pagesOf(paper)}
			name={(page) => `Page ${page.number + 1} of ${paper.name}`}
			disabled={locked || busy !== ''}
			onorder={(_ids, moved, to) => movePage(paper, Number(moved.split(' ').at(-1)), to)}
		>
			{#snippet row({ number })}
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
				/>
			{/snippet}
		</Ordered>
	{/snippet}
	<Ordered
		label="Documents"
		items={plan.papers}
		name={(paper) => paper.name}
		row={paperRow}
		look="pb-3"
		disabled={locked}
		onorder={(_ids, moved, to) => {
			const paper = plan.papers.find((one) => one.id === moved);
			if (paper) move(paper, to);
		}}
	/>
	{#if plan.attachments.length > 0}
		<p class="pb-1 text-[14px] text-quiet">Attached, unchanged</p>
		<ul class="pb-3">
			{#each plan.attachments as file (file.id)}
				<li class="flex items-start gap-1 text-[14px] leading-[18px]">
					<a class="flex-1 break-words underline" href="/papers/{file.digest}" target="_blank" rel="noopener"
						>{file.name}</a
					>
					<Tip
						name="Take {file.name} out"
						look="plain"
						onclick={() => bench.change('take a file out', detach(plan, file.id))}
						><Trash2 size={14} aria-hidden="true" /></Tip
					>
				</li>
			{/each}
		</ul>
	{/if}
	<Files
		bind:this={exchange}
		bare
		label="Another version"
		accept={TAKES}
		multiple
		onfiles={(files) => exchanging && void adding.exchange(exchanging, files)}
	/>
	{#if !locked}
		<Files
			label="Add documents"
			takes="PDF, Word, PNG, JPEG"
			accept={TAKES}
			multiple
			disabled={busy !== ''}
			say={{ choose: 'Add', drop: 'or drop here' }}
			onfiles={(files) => void adding.add(files)}
		/>
		<p class="pt-2 text-[13px] leading-[18px] text-quiet">
			<Check label="pictures together as one" bind:checked={adding.together} />
		</p>
	{:else}<p class="text-[13px] text-quiet">{bench.correcting ? 'As they were sent.' : 'Set by the template.'}</p>{/if}
	<p class="pt-2 text-[13px] leading-[18px] break-words text-quiet" role="status">
		{busy ? `Working on “${busy}”…` : ''}
	</p>
</section>
