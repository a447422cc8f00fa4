<script lang="ts">
	import type { RenderTask } from 'pdfjs-dist';
	import { shownSize, type PageSize } from '../../core/page';
	import { quiet, sharedPdf } from './pdf';

	/**
	 * The picture of one page, drawn by pdf.js when it comes near the view and let go when it has left it.
	 * `scale`: CSS pixels a point. `later`: small pictures wait until the pages themselves are there.
	 */
	let {
		url,
		number,
		page,
		scale,
		label,
		later = false
	}: { url: string; number: number; page: PageSize; scale: number; label: string; later?: boolean } = $props();

	const size = $derived(shownSize(page));
	let box: HTMLDivElement;
	let canvas = $state<HTMLCanvasElement>();
	let near = $state(false);
	let failed = $state(false);

	$effect(() => {
		const watch = new IntersectionObserver((entries) => (near = entries.some((e) => e.isIntersecting)), {
			rootMargin: '600px 0px'
		});
		watch.observe(box);
		return () => watch.disconnect();
	});

	$effect(() => {
		if (!near || !canvas) return;
		const target = canvas;
		const wanted = scale * Math.min(2, window.devicePixelRatio || 1);
		let task: RenderTask | undefined;
		let gone = false;
		void (async () => {
			try {
				if (later) await quiet();
				if (gone) return;
				const pdf = await sharedPdf(url);
				const paper = await pdf.getPage(number + 1);
				if (gone) return;
				const viewport = paper.getViewport({ scale: wanted });
				// drawn aside and copied over, so that a change of zoom doesn't flash white
				const aside = document.createElement('canvas');
				aside.width = Math.round(viewport.width);
				aside.height = Math.round(viewport.height);
				task = paper.render({ canvas: aside, viewport, annotationMode: 1 });
				await task.promise;
				if (gone) return;
				target.width = aside.width;
				target.height = aside.height;
				target.getContext('2d')!.drawImage(aside, 0, 0);
				target.dataset['drawn'] = 'yes';
				failed = false;
			} catch (error) {
				if (!gone && (error as Error).name !== 'RenderingCancelledException') failed = true;
			}
		})();
		return () => {
			gone = true;
			task?.cancel();
		};
	});
</script>

<div
	bind:this={box}
	role={label ? 'img' : 'presentation'}
	aria-label={label || undefined}
	class="relative bg-white"
	style:width="{size.width * scale}px"
	style:height="{size.height * scale}px"
>
	{#if near}<canvas bind:this={canvas} class="absolute inset-0 h-full w-full"></canvas>{/if}
	{#if failed}<p class="absolute inset-0 grid place-items-center p-6 text-center text-[#a3392b]" role="alert">
			This page could not be drawn. Load the page again.
		</p>{/if}
</div>
