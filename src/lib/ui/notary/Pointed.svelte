<script lang="ts">
	import type { Point } from './point';

	/** Where something is to stand on the page that is shown: pressed there, or written in points. */
	let {
		point = $bindable(),
		shown
	}: {
		point: Point | null;
		/** the page that all look at */
		shown: { paper: string; page: number };
	} = $props();

	const MOST = 20_000;
	let x = $derived<number | null>(point?.x ?? null);
	let y = $derived<number | null>(point?.y ?? null);

	/** a place once both are there */
	function write() {
		if (typeof x !== 'number' || typeof y !== 'number') return;
		const within = (n: number) => Math.min(MOST, Math.max(0, n));
		point = { ...(point ?? shown), x: within(x), y: within(y) };
	}
</script>

<p class="text-[14px]">{point ? `On page ${point.page + 1}.` : 'Press the page where it belongs, or write where.'}</p>
<div class="flex flex-wrap gap-3">
	<label class="text-[14px]"
		>Points from the left<input class="input mt-1 block w-28!" type="number" bind:value={x} onchange={write} /></label
	>
	<label class="text-[14px]"
		>Points from below<input class="input mt-1 block w-28!" type="number" bind:value={y} onchange={write} /></label
	>
</div>
