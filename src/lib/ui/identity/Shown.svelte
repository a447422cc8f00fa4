<script lang="ts">
	import Minus from '@lucide/svelte/icons/minus';
	import Plus from '@lucide/svelte/icons/plus';
	import RotateCw from '@lucide/svelte/icons/rotate-cw';
	import Tip from '../parts/Tip.svelte';

	/** One picture, larger or turned as one likes. */
	let { src, name }: { src: string; name: string } = $props();
	let zoom = $state(1);
	let turn = $state(0);
</script>

<figure class="min-w-0 border border-hairline bg-sheet">
	<figcaption class="flex items-center justify-between gap-2 border-b border-hairline px-2 py-1 text-[14px]">
		<span>{name}</span>
		<span class="flex gap-1">
			<Tip name="Smaller: {name}" onclick={() => (zoom = Math.max(1, zoom / 1.5))}><Minus size={15} /></Tip>
			<Tip name="Larger: {name}" onclick={() => (zoom = Math.min(8, zoom * 1.5))}><Plus size={15} /></Tip>
			<Tip name="Turn: {name}" onclick={() => (turn = (turn + 90) % 360)}><RotateCw size={15} /></Tip>
		</span>
	</figcaption>
	<!-- what is larger than its room is moved by scrolling, also by keys -->
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div class="h-72 overflow-auto" tabindex="0" role="region" aria-label="{name}, picture">
		<img
			{src}
			alt="{name}, as it was handed in"
			class="mx-auto block max-w-none"
			style="width:{100 * zoom}%;rotate:{turn}deg;{turn % 180 === 0 ? '' : 'scale:0.72'}"
		/>
	</div>
</figure>
