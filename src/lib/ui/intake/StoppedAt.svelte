<script lang="ts">
	import type { IntakePage } from '../../core/intake';
	import More from '../parts/More.svelte';

	/** Of those who have not handed in, how many were last at which page: drawn, and as a table. */
	let { pages, left, handed }: { pages: IntakePage[]; left: Record<string, number>; handed: number } = $props();

	let canvas = $state<HTMLCanvasElement>();
	const bars = $derived([
		{ name: 'First view', n: left[''] ?? 0 },
		...pages.map(({ id, title }) => ({ name: title || 'A page', n: left[id] ?? 0 })),
		{ name: 'Handed in', n: handed }
	]);

	$effect(() => {
		const drawn = bars;
		let gone = false;
		let chart: { destroy: () => void } | undefined;
		void import('chart.js').then(({ BarController, BarElement, CategoryScale, Chart, LinearScale }) => {
			if (gone || !canvas) return;
			Chart.defaults.font.family = getComputedStyle(document.body).fontFamily;
			Chart.register(CategoryScale, LinearScale, BarController, BarElement);
			const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
			chart = new Chart(canvas, {
				type: 'bar',
				data: {
					labels: drawn.map(({ name }) => name),
					datasets: [
						{
							data: drawn.map(({ n }) => n),
							// who stopped is drawn as an outline, who went on to the end filled: told apart without colour
							backgroundColor: drawn.map((_, i) => (i === drawn.length - 1 ? colour('--moss') : 'transparent')),
							borderColor: drawn.map((_, i) => colour(i === drawn.length - 1 ? '--moss' : '--copper')),
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
			});
		});
		return () => {
			gone = true;
			chart?.destroy();
		};
	});
</script>

<div style:height="{40 + bars.length * 28}px"><canvas bind:this={canvas} aria-hidden="true"></canvas></div>
<More label="As a table">
	<table class="list">
		<thead><tr><th>Page</th><th>Stopped there</th></tr></thead>
		<tbody
			>{#each bars as one, i (i)}<tr><td>{one.name}</td><td>{one.n}</td></tr>{/each}</tbody
		>
	</table>
</More>
