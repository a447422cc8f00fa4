<script lang="ts">
	import { useWords } from '../signing/words';

	/** The own camera, shown on the own device and nowhere else. */
	const words = useWords();
	let stream = $state.raw<MediaStream | null>(null);
	let cant = $state(false);
	let video = $state<HTMLVideoElement>();

	async function on() {
		try {
			stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'user' } });
		} catch {
			cant = true;
		}
	}
	function off() {
		stream?.getTracks().forEach((track) => track.stop());
		stream = null;
	}
	$effect(() => {
		if (video && stream) {
			video.srcObject = stream;
			void video.play();
		}
	});
	$effect(() => () => stream?.getTracks().forEach((track) => track.stop()));
</script>

<section class="border-b border-hairline px-5 py-4">
	{#if stream}<video bind:this={video} class="mb-2 block w-full -scale-x-100 rounded-sm" playsinline muted></video>{/if}
	<button class="button large" onclick={stream ? off : on}>{words()(stream ? 'room.camera off' : 'room.camera')}</button
	>
	<p class="pt-1 text-[14px] text-quiet">{words()(cant ? 'room.no camera' : 'room.camera note')}</p>
</section>
