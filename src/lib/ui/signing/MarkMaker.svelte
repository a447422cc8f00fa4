<script lang="ts">
	import SignaturePad from 'signature_pad';
	import { HANDS, type MarkAnswer } from '../../core/field';
	import { toStrokes } from './strokes';

	/** Makes a signature or initials: typed in a hand, drawn, or from a picture. */
	let {
		kind,
		suggestion,
		answer,
		picture,
		others,
		ongive
	}: {
		kind: string;
		suggestion: string;
		answer: MarkAnswer | undefined;
		/** hands a picture in */
		picture: (file: File) => Promise<{ digest: string } | string>;
		/** how many other places of this person take the same */
		others: number;
		ongive: (answer: MarkAnswer | null, everywhere: boolean) => void;
	} = $props();

	const WAYS = [
		['typed', 'Type it'],
		['drawn', 'Draw it'],
		['picture', 'Picture']
	] as const;
	let way = $derived<MarkAnswer['way']>(answer?.way ?? 'typed');
	let text = $derived(answer?.way === 'typed' ? answer.text : suggestion);
	let everywhere = $state(true);
	let canvas = $state<HTMLCanvasElement>();
	let pad: SignaturePad | undefined;
	let wrong = $state('');
	let busy = $state(false);

	$effect(() => {
		if (!canvas) return;
		const ratio = Math.max(1, window.devicePixelRatio || 1);
		canvas.width = canvas.offsetWidth * ratio;
		canvas.height = canvas.offsetHeight * ratio;
		canvas.getContext('2d')!.scale(ratio, ratio);
		pad = new SignaturePad(canvas, { penColor: '#121a33', minWidth: 1, maxWidth: 2.4 });
		pad.addEventListener('endStroke', () => {
			const drawn = toStrokes(pad!.toData());
			if (drawn) ongive({ way: 'drawn', ...drawn }, everywhere);
		});
		return () => pad?.off();
	});

	function type(hand: (typeof HANDS)[number]) {
		ongive(text.trim() === '' ? null : { way: 'typed', text: text.trim(), hand }, everywhere);
	}

	async function upload(file: File | undefined) {
		if (!file) return;
		busy = true;
		wrong = '';
		const got = await picture(file);
		if (typeof got === 'string') wrong = got;
		else ongive({ way: 'picture', digest: got.digest }, everywhere);
		busy = false;
	}
</script>

<div class="grid gap-2.5 pt-2">
	<div role="radiogroup" aria-label="How you give your {kind}" class="flex gap-1">
		{#each WAYS as [value, name] (value)}
			<label
				class="flex min-h-[44px] flex-1 cursor-pointer items-center justify-center rounded-sm border px-2 text-[15px] has-focus-visible:outline-2 has-focus-visible:outline-thread {way ===
				value
					? 'border-thread bg-sheet font-semibold text-thread'
					: 'border-hairline'}"
			>
				<input
					class="unseen"
					type="radio"
					name="way-{kind}"
					{value}
					checked={way === value}
					onchange={() => (way = value)}
				/>{name}
			</label>
		{/each}
	</div>
	{#if way === 'typed'}
		<label class="text-[14px]"
			>Your {kind}<input
				class="input mt-1 min-h-[44px]! text-[16px]"
				maxlength="120"
				value={text}
				oninput={(e) => {
					text = e.currentTarget.value;
					if (answer?.way === 'typed') type(answer.hand);
				}}
			/></label
		>
		<div role="group" aria-label="Choose a hand" class="grid gap-2">
			{#each HANDS as hand (hand)}
				{@const taken = answer?.way === 'typed' && answer.hand === hand}
				<button
					type="button"
					class="h-14 overflow-hidden rounded-sm border bg-white px-3 text-left text-[26px] leading-[50px] whitespace-nowrap text-[#121a33] {taken
						? 'border-2 border-thread'
						: 'border-line'}"
					aria-pressed={taken}
					aria-label="{text || 'Your name'} in hand {HANDS.indexOf(hand) + 1}"
					disabled={text.trim() === ''}
					style:font-family="'Hand {hand}'"
					onclick={() => type(hand)}>{text || ' '}</button
				>
			{/each}
		</div>
	{:else if way === 'drawn'}
		<canvas
			bind:this={canvas}
			class="h-36 w-full touch-none rounded-sm border border-line bg-white"
			aria-label="Draw your {kind} here with finger, pen or mouse. With the keyboard, choose “Type it”."
		></canvas>
		<p>
			<button
				type="button"
				class="plain"
				onclick={() => {
					pad?.clear();
					ongive(null, everywhere);
				}}>Clear and draw again</button
			>
		</p>
	{:else}
		<label class="text-[14px]"
			>A photo or scan of your {kind} on white paper<input
				class="mt-1 block min-h-[44px] w-full"
				type="file"
				accept="image/png,image/jpeg"
				disabled={busy}
				onchange={(e) => upload(e.currentTarget.files?.[0])}
			/></label
		>
		<p class="text-[14px] text-quiet" role="status">
			{busy ? 'Taking the paper away…' : answer?.way === 'picture' ? 'The picture is in place.' : ''}
		</p>
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
	{/if}
	{#if others > 0}
		<label class="flex min-h-[44px] items-center gap-2 text-[15px]"
			><input
				class="size-5"
				type="checkbox"
				bind:checked={everywhere}
				onchange={() => answer && ongive(answer, everywhere)}
			/>
			also for {others === 1 ? 'my other place' : `my ${others} other places`}</label
		>
	{/if}
</div>
