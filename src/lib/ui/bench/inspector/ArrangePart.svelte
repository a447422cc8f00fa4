<script lang="ts">
	import Tip from '../../parts/Tip.svelte';
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
	import type { Plan } from '../../../core/packet';
	import type { Alignment } from '../../../core/page';
	import type { Bench } from '../bench.svelte';
	import { alignFields, distributeFields, sizeAlike } from '../../../core/plan';

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
	const EVENLY = [
		{
			does: 'space out',
			name: 'Equal gaps across',
			least: 3,
			edit: () => distributeFields(bench.plan, ids, 'across'),
			Icon: AlignHorizontalSpaceBetween
		},
		{
			does: 'space out',
			name: 'Equal gaps down',
			least: 3,
			edit: () => distributeFields(bench.plan, ids, 'down'),
			Icon: AlignVerticalSpaceBetween
		},
		{
			does: 'size',
			name: 'As wide as the first chosen',
			least: 2,
			edit: () => sizeAlike(bench.plan, ids, 'width'),
			Icon: MoveHorizontal
		},
		{
			does: 'size',
			name: 'As high as the first chosen',
			least: 2,
			edit: () => sizeAlike(bench.plan, ids, 'height'),
			Icon: MoveVertical
		}
	];
	function run(name: string, plan: Plan) {
		bench.change(`${name} ${ids.length} fields`, plan);
	}
</script>

<fieldset>
	<legend class="pb-1">Arrange</legend>
	<div class="flex flex-wrap gap-1">
		{#each LINES as [how, name, Icon] (how)}
			<Tip name="Align: {name}" onclick={() => run('align', alignFields(bench.plan, ids, how))}
				><Icon size={17} aria-hidden="true" /></Tip
			>
		{/each}
		{#each EVENLY as { does, name, least, edit, Icon } (name)}
			<Tip {name} disabled={ids.length < least} onclick={() => run(does, edit())}
				><Icon size={17} aria-hidden="true" /></Tip
			>
		{/each}
	</div>
</fieldset>
