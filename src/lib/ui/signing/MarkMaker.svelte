<script lang="ts">
	import SignaturePad from 'signature_pad';
	import { HANDS, type MarkAnswer } from '../../core/field';
	import MarkPicture from './MarkPicture.svelte';
	import { toStrokes } from './strokes';
	import { useWords } from './words';

	/** Makes a signature or initials: typed in a hand, drawn, or from a picture. */
	let {
		initials,
		suggestion,
		answer,
		picture,
		others,
		ongive
	}: {
		initials: boolean;
		suggestion: string;
		answer: MarkAnswer | undefined;
		/** hands a picture in */
		picture: (file: Blob) => Promise<{ digest: string } | string>;
		/** how many other places of this person take the same */
		others: number;
		ongive: (answer: MarkAnswer | null, everywhere: boolean) => void;
	} = $props();

	const words = useWords();
	const WAYS = ['typed', 'drawn', 'picture'] as const;
	const name = $derived(words()(initials ? 'mark.initials' : 'mark.signature'));
	let way = $derived<MarkAnswer['way']>(answer?.way ?? 'typed');
	let text = $derived(answer?.way === 'typed' ? answer.text : suggestion);
	let everywhere = $state(true);
	let canvas = $state<HTMLCanvasElement>();
	let pad: SignaturePad | undefined;

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

	/** Writes a name smaller where it would be cut off at the edge of its box. */
	const fitted = (_text: string) => (span: HTMLElement) => {
		const fit = () => {
			span.style.fontSize = '';
			const room = span.parentElement!.clientWidth - 26;
			const wide = span.offsetWidth;
			if (wide > room) span.style.fontSize = `${Math.max(8, (24 * room) / wide)}px`;
		};
		fit();
		// a hand that has come is wider or narrower than what stood there for it
		document.fonts.ready.then(fit, () => {});
	};

	function type(hand: (typeof HANDS)[number]) {
		ongive(text.trim() === '' ? null : { way: 'typed', text: text.trim(), hand }, everywhere);
	}
</script>

<div class="grid gap-2.5 pt-2">
	<div role="radiogroup" aria-label={words()('mark.ways')} class="flex gap-1">
		{#each WAYS as value (value)}
			<label
				class="flex min-h-[44px] flex-1 cursor-pointer items-center justify-center rounded-sm border px-2 text-center text-[15px] has-focus-visible:outline-2 has-focus-visible:outline-thread {way ===
				value
					? 'border-thread bg-sheet font-semibold text-thread'
					: 'border-hairline'}"
			>
				<input
					class="unseen"
					type="radio"
					name="way-{initials ? 'initials' : 'signature'}"
					{value}
					checked={way === value}
					onchange={() => (way = value)}
				/>{words()(`mark.${value}`)}
			</label>
		{/each}
	</div>
	{#if way === 'typed'}
		<label class="text-[14px]"
			>{name}<input
				class="input mt-1 min-h-[44px]! text-[16px]"
				maxlength="120"
				value={text}
				oninput={(e) => {
					text = e.currentTarget.value;
					if (answer?.way === 'typed') type(answer.hand);
				}}
			/></label
		>
		<div role="group" aria-label={words()('mark.choose')} class="grid grid-cols-2 gap-2">
			{#each HANDS as hand (hand)}
				{@const taken = answer?.way === 'typed' && answer.hand === hand}
				<button
					type="button"
					class="h-14 overflow-hidden rounded-sm border bg-white px-3 text-start text-[24px] leading-[50px] whitespace-nowrap text-[#121a33] {taken
						? 'border-2 border-thread'
						: 'border-line'}"
					aria-pressed={taken}
					aria-label={words()('mark.hand', { name: text || name, n: HANDS.indexOf(hand) + 1 })}
					disabled={text.trim() === ''}
					style:font-family="'Hand {hand}', var(--letters)"
					onclick={() => type(hand)}><span class="inline-block" {@attach fitted(text)}>{text || ' '}</span></button
				>
			{/each}
		</div>
	{:else if way === 'drawn'}
		<canvas
			bind:this={canvas}
			class="h-36 w-full touch-none rounded-sm border border-line bg-white"
			aria-label={words()('mark.draw here', { typed: words()('mark.typed') })}
		></canvas>
		<p>
			<button
				type="button"
				class="plain"
				onclick={() => {
					pad?.clear();
					ongive(null, everywhere);
				}}>{words()('mark.clear')}</button
			>
		</p>
	{:else}
		<MarkPicture
			inPlace={answer?.way === 'picture'}
			{picture}
			ongive={(digest) => ongive({ way: 'picture', digest }, everywhere)}
		/>
	{/if}
	{#if others > 0}
		<label class="flex min-h-[44px] items-center gap-2 text-[15px]"
			><input
				class="size-5"
				type="checkbox"
				bind:checked={everywhere}
				onchange={() => answer && ongive(answer, everywhere)}
			/>
			{words()('mark.also', { count: others })}</label
		>
	{/if}
</div>
