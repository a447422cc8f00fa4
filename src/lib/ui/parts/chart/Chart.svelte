<script lang="ts">
	import type { ChartConfiguration } from 'chart.js';
	import { MediaQuery } from 'svelte/reactivity';

	/**
	 * A chart in our inks, drawn anew when its data or the colours of the screen change. What it shows is said in words beside it, and
	 * stands in a table beneath it: the drawing itself is for those who see it.
	 */
	let {
		height,
		config
	}: {
		/** in px */
		height: number;
		/** @param colour of a name such as `--moss`, as it is now */
		config: (colour: (name: string) => string) => ChartConfiguration;
	} = $props();

	let canvas = $state<HTMLCanvasElement>();
	const dark = new MediaQuery('(prefers-color-scheme: dark)');

	$effect(() => {
		const wanted = config;
		void dark.current;
		let gone = false;
		let chart: { destroy: () => void } | undefined;
		void import('chart.js').then((parts) => {
			if (gone || !canvas) return;
			const {
				BarController,
				BarElement,
				CategoryScale,
				Chart,
				Filler,
				LinearScale,
				LineController,
				LineElement,
				PointElement
			} = parts;
			Chart.register(
				BarController,
				BarElement,
				CategoryScale,
				Filler,
				LinearScale,
				LineController,
				LineElement,
				PointElement
			);
			Chart.defaults.font.family = getComputedStyle(document.body).fontFamily;
			Chart.defaults.font.size = 13;
			const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
			chart = new Chart(canvas, wanted(colour));
		});
		return () => {
			gone = true;
			chart?.destroy();
		};
	});
</script>

<div class="relative" style:height="{height}px"><canvas bind:this={canvas} aria-hidden="true"></canvas></div>
