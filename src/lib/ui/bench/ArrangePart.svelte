<script lang="ts">
	import {
		AlignCenterHorizontal,
		AlignCenterVertical,
		AlignEndHorizontal,
		AlignEndVertical,
		AlignHorizontalSpaceBetween,
		AlignStartHorizontal,
		AlignStartVertical,
		AlignVerticalSpaceBetween,
		MoveHorizontal,
		MoveVertical
	} from '@lucide/svelte';
	import type { Plan } from '../../core/packet';
	import type { Alignment } from '../../core/page';
	import type { Bench } from './bench.svelte';
	import { alignFields, distributeFields, sizeAlike } from './field-edits';

	/** Lines several fields up, spaces them evenly, makes them alike in size. */
	let { bench, ids }: { bench: Bench; ids: string[] } = $props();

	const LINES: [Alignment, string, typeof AlignStartVertical][] = [
		['left', 'left edges in line', AlignStartVertical],
		['centre', 'middles in one upright line', AlignCenterVertical],
		['right', 'right edges in line', AlignEndVertical],
		['top', 'upper edges in line', AlignStartHorizontal],
		['middle', 'middles in one level line', AlignCenterHorizontal],
		['bottom', 'lower edges in line', AlignEndHorizontal]
	];
	function run(name: string, plan: Plan) {
		bench.change(`${name} ${ids.length} fields`, plan);
	}
</script>

<fieldset>
	<legend class="pb-1">Arrange</legend>
	<div class="flex flex-wrap gap-1">
		{#each LINES as [how, name, Icon] (how)}
			<button
				class="button px-2!"
				aria-label="Align: {name}"
				title="Align: {name}"
				onclick={() => run('align', alignFields(bench.plan, ids, how))}><Icon size={17} aria-hidden="true" /></button
			>
		{/each}
		<button
			class="button px-2!"
			aria-label="Equal gaps across"
			title="Equal gaps across"
			disabled={ids.length < 3}
			onclick={() => run('space out', distributeFields(bench.plan, ids, 'across'))}
			><AlignHorizontalSpaceBetween size={17} aria-hidden="true" /></button
		>
		<button
			class="button px-2!"
			aria-label="Equal gaps down"
			title="Equal gaps down"
			disabled={ids.length < 3}
			onclick={() => run('space out', distributeFields(bench.plan, ids, 'down'))}
			><AlignVerticalSpaceBetween size={17} aria-hidden="true" /></button
		>
		<button
			class="button px-2!"
			aria-label="As wide as the first chosen"
			title="As wide as the first chosen"
			onclick={() => run('size', sizeAlike(bench.plan, ids, 'width'))}
			><MoveHorizontal size={17} aria-hidden="true" /></button
		>
		<button
			class="button px-2!"
			aria-label="As high as the first chosen"
			title="As high as the first chosen"
			onclick={() => run('size', sizeAlike(bench.plan, ids, 'height'))}
			><MoveVertical size={17} aria-hidden="true" /></button
		>
	</div>
</fieldset>
