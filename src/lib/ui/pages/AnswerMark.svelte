<script lang="ts">
	import { kindOf, type Answer } from '../../core/field';
	import type { Field } from '../../core/packet';

	/** An answer as it will be stamped: ink on the page, in the size of its field. `pictures` is where pictures are fetched. */
	let {
		field,
		answer,
		height,
		width,
		pictures
	}: { field: Field; answer: Answer; height: number; width: number; pictures: string } = $props();

	const hand = $derived('way' in answer && answer.way === 'typed' ? answer : null);
	const words = $derived(kindOf(field.kind).shown(field, answer));
	const several = $derived(field.settings['several'] === true);
	const path = (stroke: number[]) => {
		let d = `M${stroke[0]} ${stroke[1]}`;
		for (let i = 2; i + 1 < stroke.length; i += 2) d += `L${stroke[i]} ${stroke[i + 1]}`;
		return stroke.length < 4 ? `${d}l.1 0` : d;
	};
</script>

{#if hand}
	<svg class="block h-full w-full overflow-hidden" viewBox="0 0 {width} {height}" aria-hidden="true">
		<text
			x={width * 0.02}
			y={height * 0.68}
			font-size={height * 0.72}
			textLength={hand.text.length * height * 0.33 > width * 0.96 ? width * 0.96 : undefined}
			lengthAdjust="spacingAndGlyphs"
			fill="#121a33"
			style:font-family="'Hand {hand.hand}', 'Literata', serif">{hand.text}</text
		>
	</svg>
{:else if 'way' in answer && answer.way === 'drawn'}
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
{:else if 'way' in answer && answer.way === 'picture'}
	<img src="{pictures}/{answer.digest}" alt="" class="h-full w-full object-contain" />
{:else}
	<span
		class="block overflow-hidden px-[2px] text-[#121a33] {several ? 'whitespace-pre-wrap' : 'whitespace-nowrap'}"
		style:font-size="{several
			? 11 * (height / field.rect.height)
			: Math.min(11 * (height / field.rect.height), height * 0.75)}px"
		style:line-height={several ? '1.25' : `${height}px`}>{words}</span
	>
{/if}
<span class="unseen">{field.label}: {words}</span>
