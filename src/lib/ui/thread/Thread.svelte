<script lang="ts">
	import StopNode from './StopNode.svelte';
	import type { Thread } from '../../core/packet';
	import { drawn, monogram } from './stops';

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
	const label = (i: number) => {
		const people = stops[i]!.people;
		const first = monogram(people[0]?.name ?? '');
		return people.length > 1 ? `${first}+${people.length - 1}` : first;
	};
</script>

<span class="inline-block align-top">
	<svg {width} height="34" aria-hidden="true" class="block overflow-visible">
		{#each stops.slice(1) as stop, i (i)}
			{@const solid = ['done', 'left out'].includes(stops[i]!.node) && !['to come', 'by rule'].includes(stop.node)}
			<line x1={x(i) + 6} x2={x(i + 1) - 6} y1="10" y2="10" class={solid ? 'solid' : 'dotted'} />
		{/each}
		{#each stops as stop, i (i)}
			<g transform="translate({x(i)} 10)">
				<StopNode node={ended && stop.node === 'here' ? 'to come' : stop.node} weight={weight(stop.days)} />
			</g>
			<text x={x(i)} y="31" text-anchor="middle" class={ended ? '' : stop.node.replace(' ', '-')}>
				{label(i)}{#if !ended && stop.days > 0}&nbsp;{stop.days}d{/if}
			</text>
		{/each}
	</svg>
	<span class="unseen">{stops.map((stop) => stop.sentence).join('. ')}.</span>
</span>

<style>
	line.solid {
		stroke: var(--moss);
		stroke-width: 2;
	}
	line.dotted {
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
