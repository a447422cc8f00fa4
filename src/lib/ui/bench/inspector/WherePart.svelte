<script lang="ts">
	import Choice from '../../parts/Choice.svelte';
	import type { Field } from '../../../core/packet';
	import { UNITS, type Bench, type Unit } from '../bench.svelte';
	import { shiftFields, shownAt } from '../../../core/plan';

	/** Where a field stands, exactly, in the unit that is wished. */
	let { bench, field }: { bench: Bench; field: Field } = $props();

	const SIDES = [
		['left', 'From left'],
		['top', 'From top'],
		['width', 'Width'],
		['height', 'Height']
	] as const;
	const at = $derived(shownAt(bench.plan, field));
	/** parts of a unit that are shown: thousandths of an inch, tenths of all else */
	const parts = $derived(bench.unit === 'in' ? 1000 : 10);
	const inUnit = (points: number) => Math.round((points / UNITS[bench.unit]) * parts) / parts;

	function measure(side: (typeof SIDES)[number][0], input: HTMLInputElement) {
		const wanted = input.valueAsNumber * UNITS[bench.unit];
		if (Number.isFinite(wanted))
			bench.change('place', shiftFields(bench.plan, [field.id], { [side]: wanted - at[side] }));
		else input.value = String(inUnit(at[side]));
	}
</script>

<fieldset>
	<legend class="flex items-baseline gap-2 pb-1">
		Where
		<Choice
			label="Unit"
			unseen
			narrow
			plain
			value={bench.unit}
			options={[
				['mm', 'millimetres'],
				['pt', 'points'],
				['in', 'inches']
			]}
			onchoose={(unit) => (bench.unit = unit as Unit)}
		/>
	</legend>
	<div class="grid grid-cols-2 gap-2">
		{#each SIDES as [side, name] (side)}
			<label
				>{name}<input
					class="input mt-1"
					type="number"
					step={bench.unit === 'in' ? 0.01 : 0.1}
					value={inUnit(at[side])}
					onchange={(e) => measure(side, e.currentTarget)}
				/></label
			>
		{/each}
	</div>
</fieldset>
