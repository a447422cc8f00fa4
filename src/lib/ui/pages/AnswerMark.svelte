<script lang="ts">
	import { inWords, kindOf, valueOf, type Answer } from '../../core/field';
	import type { Field } from '../../core/packet';

	/**
	 * A field as it will be stamped: ink on the page, in the size of its place. `width` and `height` in CSS pixels,
	 * `scale` of them a point. `pictures` is where pictures are fetched.
	 */
	let {
		field,
		fields,
		answer,
		height,
		width,
		scale,
		locale,
		pictures
	}: {
		field: Field;
		fields: Field[];
		answer: Answer | undefined;
		height: number;
		width: number;
		scale: number;
		locale: string;
		pictures: string;
	} = $props();

	const drawn = $derived(kindOf(field.kind).drawn(field));
	const hand = $derived(answer && 'way' in answer && answer.way === 'typed' ? answer : null);
	const words = $derived(
		field.kind === 'note'
			? String(field.settings['text'] ?? '')
			: answer
				? inWords({ fields }, field, answer, locale)
				: ''
	);
	const several = $derived(field.settings['several'] === true || field.kind === 'note');
	const on = $derived(
		answer !== undefined &&
			(('choice' in answer && answer.choice === valueOf(field)) ||
				('ticks' in answer && answer.ticks.includes(valueOf(field))))
	);
	const size = $derived((field.fontSize ?? 11) * scale);
	/** shrunk as the press does it, by the average width of a letter */
	const fitted = $derived(
		field.shrink === false
			? size
			: several
				? size
				: Math.min(size, height * 0.75, Math.max(4 * scale, (width - 4) / Math.max(1, words.length * 0.56)))
	);
	const boxes = $derived(Number(field.settings['boxes'] ?? 0));
	const path = (stroke: number[]) => {
		let d = `M${stroke[0]} ${stroke[1]}`;
		for (let i = 2; i + 1 < stroke.length; i += 2) d += `L${stroke[i]} ${stroke[i + 1]}`;
		return stroke.length < 4 ? `${d}l.1 0` : d;
	};
</script>

{#if drawn === 'pick' || drawn === 'tick'}
	<svg class="block h-full w-full" viewBox="0 0 12 12" aria-hidden="true">
		{#if field.settings['outline'] === true}
			{#if drawn === 'tick'}<rect
					x="0.5"
					y="0.5"
					width="11"
					height="11"
					fill="none"
					stroke="#121a33"
					stroke-width="0.8"
				/>
			{:else}<circle cx="6" cy="6" r="5.4" fill="none" stroke="#121a33" stroke-width="0.8" />{/if}
		{/if}
		{#if on && drawn === 'tick'}<path
				d="M2 6 4.8 9.6 10.3 1.9"
				fill="none"
				stroke="#121a33"
				stroke-width="1.6"
				stroke-linecap="round"
			/>{:else if on}<circle cx="6" cy="6" r="3.4" fill="#121a33" />{/if}
	</svg>
{:else if drawn === 'image'}
	{#if field.settings['picture']}<img
			src="{pictures}/{field.settings['picture']}"
			alt={field.label}
			class="h-full w-full object-contain"
		/>{/if}
{:else if drawn === 'strike'}
	<svg class="block h-full w-full" aria-hidden="true"
		><line x1="0" x2="100%" y1="50%" y2="50%" stroke="#121a33" stroke-width={scale * 1.1} /></svg
	>
{:else if drawn === 'letters'}
	<svg class="block h-full w-full" aria-hidden="true">
		{#each [...words] as letter, i (i)}<text
				x="{(100 * (i + 0.5)) / boxes}%"
				y="72%"
				text-anchor="middle"
				font-size={Math.min(size, height * 0.8, (width / boxes) * 1.4)}
				fill="#121a33">{letter}</text
			>{/each}
	</svg>
{:else if hand}
	<svg class="block h-full w-full overflow-hidden" viewBox="0 0 {width} {height}" aria-hidden="true">
		<text
			x={width * 0.02}
			y={height * 0.68}
			font-size={height * 0.72}
			textLength={hand.text.length * height * 0.33 > width * 0.96 ? width * 0.96 : undefined}
			lengthAdjust="spacingAndGlyphs"
			fill="#121a33"
			style:font-family="'Hand {hand.hand}', var(--letters), serif">{hand.text}</text
		>
	</svg>
{:else if answer && 'way' in answer && answer.way === 'drawn'}
	<svg
		class="block h-full w-full"
		viewBox="0 0 1000 {1000 * answer.ratio}"
		preserveAspectRatio="xMidYMid meet"
		aria-hidden="true"
	>
		{#each answer.strokes as stroke, i (i)}<path
				d={path(stroke)}
				fill="none"
				stroke="#121a33"
				stroke-width={Math.max(6, 1400 / width)}
				stroke-linecap="round"
				stroke-linejoin="round"
			/>{/each}
	</svg>
{:else if answer && 'way' in answer && answer.way === 'picture'}
	<img src="{pictures}/{answer.digest}" alt="" class="h-full w-full object-contain" />
{:else}
	<span
		class="block overflow-hidden px-[2px] text-[#121a33] {several ? 'whitespace-pre-wrap' : 'whitespace-nowrap'}"
		style:text-align={field.align === 'middle' ? 'center' : (field.align ?? 'left')}
		style:font-size="{fitted}px"
		style:line-height={several ? '1.25' : `${height}px`}>{words}</span
	>
{/if}
<span class="unseen">{field.label}{words ? `: ${words}` : ''}</span>
