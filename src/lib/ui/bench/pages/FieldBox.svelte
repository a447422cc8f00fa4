<script lang="ts">
	import { kindOf } from '../../../core/field';
	import type { Field } from '../../../core/packet';
	import type { ShownRect } from '../../../core/page';
	import { monogram } from '../../thread/stops';

	/** A field on the page: a hairline slot, its person's weave at the left edge, monogram and label inside. */
	let {
		field,
		at,
		shift,
		scale,
		weave,
		owner,
		named,
		chosen,
		alone,
		fixed,
		untold,
		onchoose,
		ondrag,
		onsingle,
		onsize
	}: {
		field: Field;
		at: ShownRect;
		/** points by which it is shifted while it is dragged */
		shift: { x: number; y: number } | null;
		scale: number;
		weave: string;
		owner: string;
		/** whether the owner is a person, with a monogram */
		named: boolean;
		chosen: boolean;
		/** the only one chosen: it has handles */
		alone: boolean;
		/** it stays as it is: somebody has finished who has seen it */
		fixed: boolean;
		/** it was taken without the page saying whose it is */
		untold: boolean;
		onchoose: (add: boolean) => void;
		ondrag: (event: PointerEvent, was: boolean) => void;
		/** chooses just this one, out of a group or of several */
		onsingle: () => void;
		onsize: (event: PointerEvent, across: -1 | 0 | 1, down: -1 | 0 | 1) => void;
	} = $props();

	const kind = $derived(kindOf(field.kind));
	const drawn = $derived(kind.drawn(field));
	const small = $derived(at.width * scale < 34);
	const boxes = $derived(drawn === 'letters' ? Number(field.settings['boxes']) : 0);
	const says = $derived(
		field.kind === 'note'
			? String(field.settings['text'] ?? '') || 'Note'
			: field.kind === 'computed'
				? `= ${String(field.settings['rule'] ?? '')}`
				: field.label
	);
	const HANDLES = [
		[-1, -1, 'nwse-resize'],
		[0, -1, 'ns-resize'],
		[1, -1, 'nesw-resize'],
		[-1, 0, 'ew-resize'],
		[1, 0, 'ew-resize'],
		[-1, 1, 'nesw-resize'],
		[0, 1, 'ns-resize'],
		[1, 1, 'nwse-resize']
	] as const;
</script>

<div
	class="field absolute flex {fixed ? 'border-dashed opacity-60' : ''} items-stretch overflow-visible border {drawn ===
	'pick'
		? 'rounded-full'
		: 'rounded-[2px]'} {chosen
		? 'border-[#14525c] outline outline-[#14525c]'
		: 'border-[#8a8f86]'} bg-[#fffefaE6] text-[#20262b]"
	style:left="{at.left * scale}px"
	style:top="{at.top * scale}px"
	style:width="{at.width * scale}px"
	style:height="{at.height * scale}px"
	style:transform={shift ? `translate(${shift.x * scale}px, ${shift.y * scale}px)` : undefined}
	style:will-change={shift ? 'transform' : undefined}
	style:touch-action="none"
	role="button"
	tabindex="0"
	data-field={field.id}
	aria-pressed={chosen}
	aria-label="{kind.name}, {field.label}, {owner}, page {field.page + 1}{fixed ? ', stays as it is' : ''}{untold
		? ', the page doesn’t say whose'
		: ''}"
	title={small ? `${kind.name}: ${field.label}, ${owner}` : undefined}
	onfocus={() => !chosen && onchoose(false)}
	onkeydown={(event) => {
		if (event.key !== ' ') return;
		event.preventDefault();
		onsingle();
	}}
	onpointerdown={(event) => {
		if (event.button !== 0) return;
		event.stopPropagation();
		const was = chosen && !event.shiftKey;
		if (!was) onchoose(event.shiftKey);
		if (!fixed) ondrag(event, was);
	}}
>
	{#if drawn === 'image' && field.settings['picture']}
		<img src="/pictures/{field.settings['picture']}" alt="" class="pointer-events-none h-full w-full object-contain" />
	{:else if drawn === 'strike'}
		<span class="my-auto h-[1.5px] w-full bg-[#121a33]"></span>
	{:else if small}
		<span class="m-auto h-full w-full {drawn === 'pick' ? 'rounded-full' : ''} opacity-60" style:background={weave}
		></span>
	{:else}
		<span class="w-[8px] shrink-0" style:background={weave}></span>
		<span
			class="flex min-w-0 items-center gap-1.5 overflow-hidden px-1 whitespace-nowrap"
			style:font-size="{Math.max(8, Math.min(13, at.height * scale * 0.62))}px"
			style:line-height="1.1"
		>
			{#if named}<b>{monogram(owner)}</b>{/if}<span class="text-[#5d646a]"
				>{says}{field.required || field.person === 'everybody' ? '' : ' (may stay empty)'}</span
			>
		</span>
		{#if field.showWhen}<span class="ml-auto pr-1 text-[9px] text-[#a85a1f]" aria-hidden="true">if</span>{/if}
	{/if}
	{#if untold}<span
			class="pointer-events-none absolute -top-2 -right-2 grid h-4 w-4 place-items-center rounded-full border border-[#a85a1f] bg-[#fffefa] text-[11px] leading-none text-[#a85a1f]"
			aria-hidden="true">?</span
		>{/if}
	{#if boxes > 1}
		{#each { length: boxes - 1 } as _, i (i)}<span
				class="pointer-events-none absolute inset-y-0 border-l border-[#8a8f86]"
				style:left="{((i + 1) / boxes) * 100}%"
			></span>{/each}
	{/if}
	{#if alone && !fixed}
		{#each HANDLES as [across, down, cursor] (`${across} ${down}`)}
			<span
				class="absolute size-[8px] -translate-x-1/2 -translate-y-1/2 bg-[#14525c]"
				style:left="{50 + across * 50}%"
				style:top="{50 + down * 50}%"
				style:cursor
				style:touch-action="none"
				data-handle="{across} {down}"
				aria-hidden="true"
				onpointerdown={(event) => {
					event.stopPropagation();
					onsize(event, across, down);
				}}
			></span>
		{/each}
	{/if}
</div>

<style>
	.field {
		cursor: move;
	}
</style>
