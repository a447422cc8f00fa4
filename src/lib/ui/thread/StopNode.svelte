<script lang="ts">
	import { shapeOf, type Node } from './stops';

	/**
	 * One stop of a thread, as SVG round a point: solid = done, ring = here, hollow = to come, crossed = trouble, small open
	 * diamond = opens only by rule, cross-stroke of the line = left out, thin tick = copy only. One element: lists have
	 * thousands.
	 */
	let {
		node,
		x = 0,
		y = 0,
		size = 6,
		weight = 2
	}: { node: Node; x?: number; y?: number; size?: number; weight?: number } = $props();
</script>

<path
	class={node.replace(' ', '-')}
	d={shapeOf(node, size)}
	transform="translate({x} {y})"
	style:stroke-width={node === 'here' ? weight : undefined}
/>

<style>
	path {
		fill: var(--sheet);
		stroke: var(--hollow);
		stroke-width: 1.5;
	}
	.done {
		fill: var(--moss);
		stroke: var(--moss);
	}
	.here {
		stroke: var(--thread);
	}
	.trouble {
		stroke: var(--brick);
		stroke-width: 2;
	}
	.left-out {
		stroke: var(--line);
		stroke-width: 2;
	}
	.copy {
		stroke: var(--line);
		stroke-width: 2.5;
	}
</style>
