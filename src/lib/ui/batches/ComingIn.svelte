<script lang="ts">
	import { datesIn } from '../../core/intl';
	import More from '../parts/More.svelte';

	/** How many had theirs at the end of each day, drawn and as a table. */
	let { days }: { days: { day: string; sent: number; have: number }[] } = $props();

	let canvas = $state<HTMLCanvasElement>();

	$effect(() => {
		const drawn = days;
		let gone = false;
		let chart: { destroy: () => void } | undefined;
		void import('chart.js').then(({ CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement }) => {
			if (gone || !canvas) return;
			Chart.defaults.font.family = getComputedStyle(document.body).fontFamily;
			Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement);
			const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
			const line = (label: string, data: number[], tone: string, dash: number[] = []) => ({
				label,
				data,
				borderColor: colour(tone),
				backgroundColor: colour(tone),
				borderDash: dash,
				pointRadius: 2.5,
				stepped: true
			});
			chart = new Chart(canvas, {
				type: 'line',
				data: {
					labels: drawn.map(({ day }) =>
						datesIn('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' }).format(new Date(day))
					),
					datasets: [
						line(
							'have',
							drawn.map(({ have }) => have),
							'--moss'
						),
						line(
							'sent',
							drawn.map(({ sent }) => sent),
							'--line',
							[4, 4]
						)
					]
				},
				options: {
					animation: false,
					maintainAspectRatio: false,
					scales: {
						x: { ticks: { color: colour('--quiet') }, grid: { display: false } },
						y: {
							beginAtZero: true,
							ticks: { precision: 0, color: colour('--quiet') },
							grid: { color: colour('--hairline') }
						}
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

<div class="h-32"><canvas bind:this={canvas} aria-hidden="true"></canvas></div>
<More label="Day by day">
	<table class="list">
		<thead><tr><th>Day</th><th>Sent</th><th>Have</th></tr></thead>
		<tbody
			>{#each days as one (one.day)}<tr><td>{one.day}</td><td>{one.sent}</td><td>{one.have}</td></tr>{/each}</tbody
		>
	</table>
</More>
