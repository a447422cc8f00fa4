<script lang="ts">
	import type { Node } from './stops';

	/**
	 * One stop of a thread, as SVG round the origin: solid = done, ring = here, hollow = to come, crossed = trouble,
	 * small open
	 * diamond = opens only by rule, cross-stroke of the line = left out, thin tick = copy only.
	 */
	let { node, size = 6, weight = 2 }: { node: Node; size?: number; weight?: number } = $props();
</script>

<g class={node.replace(' ', '-')}>
	{#if node === 'copy'}<line y1={-size} y2={size} />
	{:else if node === 'by rule'}<path class="diamond" d="M0 {-size}L{size} 0 0 {size} {-size} 0Z" />
	{:else if node === 'left out'}<path class="gap" d="M-4 4 4-4" />
	{:else}
		<circle r={size} style:stroke-width={node === 'here' ? weight : undefined} />
		{#if node === 'trouble'}<path d="M-3-3 3 3M3-3-3 3" />{/if}
	{/if}
</g>

<style>
	circle {
		fill: var(--sheet);
		stroke: var(--hollow);
		stroke-width: 1.5;
	}
	.done circle {
		fill: var(--moss);
		stroke: var(--moss);
	}
	.here circle {
		stroke: var(--thread);
	}
	.trouble circle,
	.trouble path {
		stroke: var(--brick);
		stroke-width: 2;
	}
	.diamond {
		fill: var(--sheet);
		stroke: var(--hollow);
		stroke-width: 1.5;
	}
	.gap {
		stroke: var(--line);
		stroke-width: 2;
	}
	line {
		stroke: var(--line);
		stroke-width: 2.5;
	}
</style>
