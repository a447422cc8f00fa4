<script lang="ts">
	import type { PDFPageProxy, RenderTask } from 'pdfjs-dist';
	import { shownSize, type PageSize } from '../../core/page';
	import { quiet, sharedPdf } from './pdf';

	/**
	 * The picture of one page, drawn by pdf.js when it comes near the view and let go when it has left it.
	 * `scale`: CSS pixels a point. `later`: small pictures wait until the pages themselves are there.
	 * `near` tells whether it is near the view, for what is only wanted there.
	 */
	let {
		url,
		number,
		page,
		scale,
		label,
		later = false,
		near = $bindable(false)
	}: {
		url: string;
		number: number;
		page: PageSize;
		scale: number;
		label: string;
		later?: boolean;
		near?: boolean;
	} = $props();

	const size = $derived(shownSize(page));
	let box: HTMLDivElement;
	let canvas = $state<HTMLCanvasElement>();
	let failed = $state(false);

	$effect(() => {
		const watch = new IntersectionObserver((entries) => (near = entries.some((e) => e.isIntersecting)), {
			rootMargin: '600px 0px'
		});
		watch.observe(box);
		return () => watch.disconnect();
	});

	/** A canvas holds its pixels until it is collected, which may be long after; one without a size holds none. */
	function letGo(of: HTMLCanvasElement) {
		of.width = 0;
		of.height = 0;
	}
	$effect(() => {
		const held = canvas;
		return () => held && letGo(held);
	});

	$effect(() => {
		if (!near || !canvas) return;
		const target = canvas;
		const wanted = scale * Math.min(2, window.devicePixelRatio || 1);
		let task: RenderTask | undefined;
		let drawn: PDFPageProxy | undefined;
		let gone = false;
		void (async () => {
			try {
				if (later) await quiet();
				if (gone) return;
				const pdf = await sharedPdf(url);
				const paper = await pdf.getPage(number + 1);
				if (gone) return;
				drawn = paper;
				const viewport = paper.getViewport({ scale: wanted });
				// drawn aside and copied over, so that a change of zoom doesn't flash white
				const aside = document.createElement('canvas');
				aside.width = Math.round(viewport.width);
				aside.height = Math.round(viewport.height);
				try {
					task = paper.render({ canvas: aside, viewport, annotationMode: 1 });
					await task.promise;
					if (gone) return;
					target.width = aside.width;
					target.height = aside.height;
					target.getContext('2d')!.drawImage(aside, 0, 0);
				} finally {
					letGo(aside);
				}
				target.dataset['drawn'] = 'yes';
				failed = false;
			} catch (error) {
				if (!gone && (error as Error).name !== 'RenderingCancelledException') failed = true;
			}
		})();
		return () => {
			gone = true;
			task?.cancel();
			drawn?.cleanup();
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
