<script lang="ts">
	import { tick, untrack } from 'svelte';
	import type { ReturnLook } from '../../core/paper';

	/** One page as it went out beside the same as it came back, with what is in doubt marked on both. */
	let {
		page,
		base,
		chosen
	}: {
		page: ReturnLook['pages'][number];
		base: string;
		/** which of its doubts is looked at */ chosen: number | null;
	} = $props();

	let zoom = $state(1.5);
	/** so large that a changed letter is seen */
	const CLOSE = 2.75;
	const part = (n: number, of: number) => `${(100 * n) / of}%`;
	const sides = $derived([
		{ name: 'As it went out', src: `${base}/pictures/out-${page.number}` },
		{ name: 'As it came back', src: page.picture ? `${base}/pictures/${page.picture}` : '' }
	]);
	let panes = $state<HTMLElement[]>([]);

	/** both sides stay at the same place */
	function together(from: number) {
		const [one, other] = [panes[from], panes[1 - from]];
		if (!one || !other || (other.scrollTop === one.scrollTop && other.scrollLeft === one.scrollLeft)) return;
		other.scrollTop = one.scrollTop;
		other.scrollLeft = one.scrollLeft;
	}

	$effect(() => {
		const at = chosen === null ? null : page.doubts[chosen]?.at;
		if (!at) return;
		zoom = Math.max(
			untrack(() => zoom),
			CLOSE
		);
		void tick().then(() => {
			for (const pane of panes) {
				if (!pane) continue;
				pane.scrollTop = ((at.top + at.height / 2) / page.height) * pane.scrollHeight - pane.clientHeight / 2;
				pane.scrollLeft = ((at.left + at.width / 2) / page.width) * pane.scrollWidth - pane.clientWidth / 2;
			}
		});
	});
</script>

<p class="flex items-center gap-2 pb-2 text-[14px]">
	<label class="flex items-center gap-2"
		>Size <input type="range" min="1" max="4" step="0.25" bind:value={zoom} class="w-36 accent-thread" /></label
	>
	{#if page.share !== null}<span class="ps-3 text-quiet"
			>{page.share} of a hundred words where they were · {page.dots} dots to the inch · told by its {page.by}</span
		>{/if}
</p>
<div class="grid gap-3 sm:grid-cols-2">
	{#each sides as { name, src }, i (name)}
		<figure class="min-w-0 border border-hairline bg-sheet">
			<figcaption class="border-b border-hairline px-2 py-1 text-[14px]">{name}</figcaption>
			{#if src}
				<!-- what is larger than its room is moved by scrolling, also by keys -->
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<div
					bind:this={panes[i]}
					class="h-[58vh] overflow-auto"
					tabindex="0"
					role="region"
					aria-label="{name}, page {page.number + 1}"
					onscroll={() => together(i)}
				>
					<div class="relative" style="width:{100 * zoom}%;aspect-ratio:{page.width}/{page.height}">
						<img {src} alt="Page {page.number + 1}, {name.toLowerCase()}" class="absolute inset-0 size-full" />
						{#each page.places as place (place.field)}
							<span
								class="absolute border {place.ink ? 'border-moss' : 'border-dashed border-line'}"
								style="left:{part(place.left, page.width)};top:{part(place.top, page.height)};width:{part(
									place.width,
									page.width
								)};height:{part(place.height, page.height)}"
								title="{place.label}: {place.ink ? 'written' : 'empty'}"
							></span>
						{/each}
						{#each page.doubts as doubt, n (n)}
							{#if doubt.at}
								<span
									class="absolute {n === chosen ? 'border-[3px]' : 'border-2'} border-brick"
									style="left:calc({part(doubt.at.left, page.width)} - 4px);top:calc({part(
										doubt.at.top,
										page.height
									)} - 4px);width:calc({part(doubt.at.width, page.width)} + 8px);height:calc({part(
										doubt.at.height,
										page.height
									)} + 8px)"
									aria-hidden="true"
								></span>
							{/if}
						{/each}
					</div>
				</div>
			{:else}<p class="px-3 py-6 text-quiet">No picture of this page is here.</p>{/if}
		</figure>
	{/each}
</div>
