<script lang="ts">
	import { onMount } from 'svelte';
	import type { Side } from '../../../core/identity/asked';
	import { useWords } from '../words';

	/** The camera, with an outline to lay the document into. */
	let { side, ontake, onleave }: { side: Side; ontake: (picture: Blob) => void; onleave: (cant: boolean) => void } =
		$props();

	const words = useWords();
	let video = $state<HTMLVideoElement>();
	let running = $state(false);

	onMount(() => {
		let stream: MediaStream | undefined;
		let gone = false;
		const wanted = {
			video: { facingMode: side === 'holder' ? 'user' : 'environment', width: { ideal: 1920 }, height: { ideal: 1440 } }
		};
		(navigator.mediaDevices?.getUserMedia(wanted) ?? Promise.reject(new Error('no camera'))).then(
			(got) => {
				stream = got;
				if (gone || !video) return got.getTracks().forEach((track) => track.stop());
				video.srcObject = got;
				void video.play().then(() => (running = true));
			},
			() => onleave(true)
		);
		return () => {
			gone = true;
			stream?.getTracks().forEach((track) => track.stop());
		};
	});

	function take() {
		if (!video) return;
		const canvas = document.createElement('canvas');
		canvas.width = video.videoWidth;
		canvas.height = video.videoHeight;
		canvas.getContext('2d')!.drawImage(video, 0, 0);
		canvas.toBlob((blob) => blob && ontake(blob), 'image/jpeg', 0.92);
	}
</script>

<div class="grid gap-3">
	<div class="relative overflow-hidden rounded-sm bg-ink">
		<video bind:this={video} class="block w-full" playsinline muted></video>
		<div
			class="pointer-events-none absolute inset-[9%] rounded-md border-2 border-dashed border-sheet {side === 'holder'
				? 'mx-auto w-1/2 rounded-[50%]'
				: ''}"
			aria-hidden="true"
		></div>
	</div>
	{#if side !== 'holder'}<p class="text-[15px] text-quiet">{words()('show.outline')}</p>{/if}
	<p class="flex flex-wrap gap-2">
		<button type="button" class="button primary large" disabled={!running} onclick={take}>{words()('show.take')}</button
		>
		<button type="button" class="button large" onclick={() => onleave(false)}>{words()('show.leave')}</button>
	</p>
</div>
