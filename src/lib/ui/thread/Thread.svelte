<script lang="ts">
	import StopNode from './StopNode.svelte';
	import type { Thread } from '../../core/packet';
	import { drawn, monogram, type DrawnStop } from './stops';

	/** The route as one line with stops on it: for a row of a table. */
	let {
		thread,
		now,
		ended = false,
		width = 190
	}: { thread: Thread; now: string; ended?: boolean; width?: number } = $props();

	const stops = $derived(drawn(thread, now));
	const gap = $derived(stops.length > 1 ? (width - 40) / (stops.length - 1) : 0);
	const x = (i: number) => (stops.length > 1 ? 20 + i * gap : 20);
	// the longer it waits, the heavier the ring
	const weight = (days: number) => Math.min(4.5, 2 + days * 0.35);
	const label = ({ people, days }: DrawnStop) =>
		monogram(people[0]?.name ?? '') +
		(people.length > 1 ? `+${people.length - 1}` : '') +
		(!ended && days > 0 ? `\u00a0${days}d` : '');
	const solid = (i: number) =>
		['done', 'left out'].includes(stops[i]!.node) && !['to come', 'by rule'].includes(stops[i + 1]!.node);
	/** the pieces between stops, all of a kind as one path */
	const pieces = (kind: boolean) =>
		stops
			.slice(1)
			.map((_, i) => (solid(i) === kind ? `M${x(i) + 6} 10H${x(i + 1) - 6}` : ''))
			.join('');
</script>

<span class="inline-block align-top">
	<svg {width} height="34" aria-hidden="true" class="block overflow-visible">
		<path d={pieces(true)} class="solid" /><path d={pieces(false)} class="dotted" />
		{#each stops as stop, i (i)}
			<StopNode
				node={ended && stop.node === 'here' ? 'to come' : stop.node}
				x={x(i)}
				y={10}
				weight={weight(stop.days)}
			/>
			<text x={x(i)} y="31" text-anchor="middle" class={ended ? '' : stop.node.replace(' ', '-')}>{label(stop)}</text>
		{/each}
	</svg>
	<span class="unseen">{stops.map((stop) => stop.sentence).join('. ')}.</span>
</span>

<style>
	path.solid {
		stroke: var(--moss);
		stroke-width: 2;
	}
	path.dotted {
		stroke: var(--hollow);
		stroke-width: 1.5;
		stroke-dasharray: 2 3;
	}
	text {
		font-size: 12px;
		fill: var(--quiet);
	}
	text.here {
		fill: var(--thread);
		font-weight: 700;
	}
	text.trouble {
		fill: var(--brick);
		font-weight: 700;
	}
</style>
