<script lang="ts">
	import Tip from '../../parts/Tip.svelte';
	import { ArrowDown, ArrowUp, RotateCw, Trash2 } from '@lucide/svelte';
	import type { Paper } from '../../../core/packet';
	import PagePicture from '../../pages/PagePicture.svelte';

	/** One page of a document, small: whose fields are on it, and what can be done with it. Its buttons are only made near the view. */
	let {
		paper,
		number,
		owners,
		busy,
		locked,
		ongo,
		onturn,
		onmove,
		onleave
	}: {
		paper: Paper;
		number: number;
		/** the weaves of those who have fields here */
		owners: string[];
		busy: boolean;
		locked: boolean;
		ongo: (key: string) => void;
		onturn: () => void;
		onmove: (to: number) => void;
		onleave: () => void;
	} = $props();

	let near = $state(false);
	const page = $derived(paper.pages[number]!);
	const several = $derived(paper.pages.length > 1);
	const scale = $derived(78 / (page.rotate % 180 === 0 ? page.width : page.height));
	const name = $derived(`${number + 1} of ${paper.name}`);
</script>

<div class="group pb-1">
	<button
		class="mx-auto block border border-hairline hover:border-thread"
		aria-label="Go to {paper.name}, page {number + 1}"
		onclick={() => ongo(`${paper.id}-${number}`)}
	>
		<PagePicture url="/papers/{paper.digest}" {number} {page} {scale} label="" later bind:near />
	</button>
	<p class="flex items-center justify-center gap-1 text-[13px] leading-5 text-quiet">
		{number + 1}
		{#each owners as weave, i (i)}<span class="inline-block h-2.5 w-2.5" style:background={weave}></span>{/each}
	</p>
	{#if !locked}
		<p class="flex h-6 justify-center opacity-0 group-focus-within:opacity-100 group-hover:opacity-100">
			{#if near}
				{@const last = paper.pages.length - 1}
				<Tip name="Turn page {name}" look="plain" disabled={busy} onclick={onturn}
					><RotateCw size={13} aria-hidden="true" /></Tip
				>
				{#if several}
					<Tip
						name="Page {name} earlier"
						look="plain"
						disabled={busy || number === 0}
						onclick={() => onmove(number - 1)}><ArrowUp size={13} aria-hidden="true" /></Tip
					>
					<Tip
						name="Page {name} later"
						look="plain"
						disabled={busy || number === last}
						onclick={() => onmove(number + 1)}><ArrowDown size={13} aria-hidden="true" /></Tip
					>
					<Tip name="Leave page {name} out" look="plain" disabled={busy} onclick={onleave}
						><Trash2 size={13} aria-hidden="true" /></Tip
					>
				{/if}
			{/if}
		</p>
	{/if}
</div>
