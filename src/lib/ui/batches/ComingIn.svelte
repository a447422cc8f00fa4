<script lang="ts">
	import type { ChartConfiguration } from 'chart.js';
	import { datesIn } from '../../core/intl';
	import Chart from '../parts/chart/Chart.svelte';
	import More from '../parts/More.svelte';

	/** How many had theirs at the end of each day, drawn and as a table. */
	let { days }: { days: { day: string; sent: number; have: number }[] } = $props();

	const config = $derived((colour: (name: string) => string): ChartConfiguration => {
		const line = (label: string, data: number[], tone: string, dash: number[] = []) => ({
			label,
			data,
			borderColor: colour(tone),
			backgroundColor: colour(tone),
			borderDash: dash,
			pointRadius: 2.5,
			stepped: true
		});
		const have = days.map((one) => one.have);
		const sent = days.map((one) => one.sent);
		return {
			type: 'line',
			data: {
				labels: days.map(({ day }) =>
					datesIn('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' }).format(new Date(day))
				),
				datasets: [line('have', have, '--moss'), line('sent', sent, '--line', [4, 4])]
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
		};
	});
</script>

<Chart height={128} {config} />
<More label="Day by day">
	<table class="list">
		<thead><tr><th>Day</th><th>Sent</th><th>Have</th></tr></thead>
		<tbody
			>{#each days as one (one.day)}<tr><td>{one.day}</td><td>{one.sent}</td><td>{one.have}</td></tr>{/each}</tbody
		>
	</table>
</More>
