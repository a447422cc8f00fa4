<script lang="ts">
	import Files from '../parts/Files.svelte';
	import { useWords } from './words';

	/** A signature from a photo or scan: turned and cut to size here; the paper is taken away on the server. */
	let {
		inPlace,
		picture,
		ongive
	}: {
		inPlace: boolean;
		/** hands a picture in */
		picture: (file: Blob) => Promise<{ digest: string } | string>;
		ongive: (digest: string) => void;
	} = $props();

	const words = useWords();
	const SIDES = ['left', 'right', 'top', 'bottom'] as const;
	/** a photo has more pixels than a signature needs */
	const LARGEST = 1600;
	let source = $state.raw<ImageBitmap | null>(null);
	let turned = $state(0);
	/** percent cut off at each side */
	let cut = $state({ left: 0, right: 0, top: 0, bottom: 0 });
	let canvas = $state<HTMLCanvasElement>();
	let busy = $state(false);
	let wrong = $state('');

	async function take(file: File | undefined) {
		if (!file) return;
		wrong = '';
		turned = 0;
		cut = { left: 0, right: 0, top: 0, bottom: 0 };
		try {
			source = await createImageBitmap(file);
		} catch {
			source = null;
			wrong = words()('error.not-a-picture');
		}
	}

	$effect(() => {
		if (!canvas || !source) return;
		const quarter = turned % 2 === 1;
		const scale = Math.min(1, LARGEST / Math.max(source.width, source.height));
		const [w, h] = [source.width * scale, source.height * scale];
		const [width, height] = quarter ? [h, w] : [w, h];
		const left = (cut.left / 100) * width;
		const top = (cut.top / 100) * height;
		canvas.width = Math.max(1, width - left - (cut.right / 100) * width);
		canvas.height = Math.max(1, height - top - (cut.bottom / 100) * height);
		const context = canvas.getContext('2d')!;
		context.translate(width / 2 - left, height / 2 - top);
		context.rotate((turned * Math.PI) / 2);
		context.drawImage(source, -w / 2, -h / 2, w, h);
	});

	async function use() {
		const blob = await new Promise<Blob | null>((resolve) => canvas!.toBlob(resolve, 'image/png'));
		if (!blob) return;
		busy = true;
		const got = await picture(blob);
		busy = false;
		if (typeof got === 'string') return (wrong = got);
		source = null;
		ongive(got.digest);
	}
</script>

<Files
	label={words()('mark.photo')}
	takes={words()('mark.photo')}
	accept="image/png,image/jpeg"
	disabled={busy}
	say={{ choose: words()('answer.choose file'), drop: words()('answer.drop') }}
	onfiles={([file]) => take(file)}
/>
{#if source}
	<div class="grid place-items-center rounded-sm border border-line bg-white p-2">
		<canvas bind:this={canvas} class="max-h-40 max-w-full" aria-hidden="true"></canvas>
	</div>
	<p>
		<button type="button" class="button" onclick={() => (turned = (turned + 1) % 4)}>{words()('mark.turn')}</button>
	</p>
	{#each SIDES as side (side)}
		<label class="grid grid-cols-[1fr_1fr] items-center gap-2 text-[14px]"
			>{words()(`mark.${side}`)}<input
				class="min-h-[44px]"
				type="range"
				min="0"
				max="45"
				bind:value={cut[side]}
			/></label
		>
	{/each}
	<p><button type="button" class="button primary large" disabled={busy} onclick={use}>{words()('mark.use')}</button></p>
{/if}
<p class="text-[14px] text-quiet" role="status">
	{busy ? words()('mark.taking') : inPlace && !source ? words()('mark.in place') : ''}
</p>
<p class="wrong empty:hidden" role="alert">{wrong}</p>
