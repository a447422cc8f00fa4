<script lang="ts">
	import type { ChartConfiguration } from 'chart.js';
	import type { IntakePage } from '../../core/intake';
	import Chart from '../parts/chart/Chart.svelte';
	import More from '../parts/More.svelte';

	/** Of those who have not handed in, how many were last at which page: drawn, and as a table. */
	let { pages, left, handed }: { pages: IntakePage[]; left: Record<string, number>; handed: number } = $props();

	const bars = $derived([
		{ name: 'First view', n: left[''] ?? 0 },
		...pages.map(({ id, title }) => ({ name: title || 'A page', n: left[id] ?? 0 })),
		{ name: 'Handed in', n: handed }
	]);

	const config = $derived((colour: (name: string) => string): ChartConfiguration => ({
		type: 'bar',
		data: {
			labels: bars.map(({ name }) => name),
			datasets: [
				{
					data: bars.map(({ n }) => n),
					// who stopped is drawn as an outline, who went on to the end filled: told apart without colour
					backgroundColor: bars.map((_, i) => (i === bars.length - 1 ? colour('--moss') : 'transparent')),
					borderColor: bars.map((_, i) => colour(i === bars.length - 1 ? '--moss' : '--copper')),
					borderWidth: 1.5,
					barThickness: 16
				}
			]
		},
		options: {
			indexAxis: 'y',
			animation: false,
			maintainAspectRatio: false,
			scales: {
				x: {
					beginAtZero: true,
					ticks: { precision: 0, color: colour('--quiet') },
					grid: { color: colour('--hairline') }
				},
				y: { ticks: { color: colour('--ink') }, grid: { display: false } }
			}
		}
	}));
</script>

<Chart height={40 + bars.length * 28} {config} />
<More label="As a table">
	<table class="list">
		<thead><tr><th>Page</th><th>Stopped there</th></tr></thead>
		<tbody
			>{#each bars as one, i (i)}<tr><td>{one.name}</td><td>{one.n}</td></tr>{/each}</tbody
		>
	</table>
</More>
