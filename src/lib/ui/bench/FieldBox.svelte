<script lang="ts">
	import { kindOf } from '../../core/field';
	import type { Field } from '../../core/packet';
	import type { ShownRect } from '../../core/page';
	import { monogram } from '../thread/stops';
	import { weave } from './weave';

	/** A field on the page: a hairline slot, its person's weave at the left edge, monogram and label inside. */
	let {
		field,
		at,
		scale,
		place,
		owner,
		chosen,
		onchoose,
		ondrag
	}: {
		field: Field;
		at: ShownRect;
		scale: number;
		place: number;
		owner: string;
		chosen: boolean;
		onchoose: (add: boolean) => void;
		ondrag: (event: PointerEvent, how: 'move' | 'size') => void;
	} = $props();
</script>

<div
	class="field absolute flex items-stretch overflow-visible rounded-[2px] border {chosen
		? 'border-[#14525c] outline outline-[#14525c]'
		: 'border-[#8a8f86]'} bg-[#fffefaE6] text-[#20262b]"
	style:left="{at.left * scale}px"
	style:top="{at.top * scale}px"
	style:width="{at.width * scale}px"
	style:height="{at.height * scale}px"
	style:touch-action="none"
	role="button"
	tabindex="0"
	data-field={field.id}
	aria-pressed={chosen}
	aria-label="{kindOf(field.kind).name}, {field.label}, {owner || 'nobody'}, page {field.page + 1}"
	onfocus={() => !chosen && onchoose(false)}
	onpointerdown={(event) => {
		if (event.button !== 0) return;
		event.stopPropagation();
		if (!chosen || event.shiftKey) onchoose(event.shiftKey);
		ondrag(event, 'move');
	}}
>
	<span class="w-[8px] shrink-0" style:background={weave(place)}></span>
	<span
		class="flex min-w-0 items-center gap-1.5 overflow-hidden px-1 whitespace-nowrap"
		style:font-size="{Math.max(8, Math.min(13, at.height * scale * 0.62))}px"
		style:line-height="1.1"
	>
		<b>{owner ? monogram(owner) : '—'}</b><span class="text-[#5d646a]"
			>{field.label}{field.required ? '' : ' (may stay empty)'}</span
		>
	</span>
	{#if chosen}
		<span
			class="absolute -right-[5px] -bottom-[5px] size-[10px] cursor-nwse-resize bg-[#14525c]"
			aria-hidden="true"
			onpointerdown={(event) => {
				event.stopPropagation();
				ondrag(event, 'size');
			}}
		></span>
	{/if}
</div>

<style>
	.field {
		cursor: move;
	}
</style>
