<script lang="ts">
	import { cutText } from '../../../../core/clean-text';
	import { ruleFault } from '../../../../core/field';
	import { dayOf } from '../../../../core/rule';
	import Day from '../../../parts/Day.svelte';
	import { RuleBox } from '../../../rules';
	import Choice from '../../../parts/Choice.svelte';
	import DateLook from '../DateLook.svelte';
	import type { Settings } from '../settings.svelte';

	/** How a day is written, and between which it lies. */
	let { settings }: { settings: Settings } = $props();

	const field = $derived(settings.field);
	const bench = $derived(settings.bench);
	const plan = $derived(bench.plan);
	/** a bound: a day, or so many days from another date */
	const boundWay = (bound: unknown) => (bound === undefined ? 'none' : dayOf(String(bound)) ? 'day' : 'rule');
	function boundTo(name: 'least' | 'most', way: string) {
		settings.set(name, way === 'none' ? undefined : way === 'day' ? bench.today : 'today');
	}
</script>

<DateLook {settings} />
{#each [['least', 'Not before'], ['most', 'Not after']] as const as [name, label] (name)}
	{@const way = boundWay(settings.get(name))}
	<div class="grid gap-1">
		<Choice
			{label}
			value={way}
			options={[
				['none', 'no limit'],
				['day', 'a fixed day'],
				['rule', 'relative to another date']
			]}
			onchoose={(to) => boundTo(name, to)}
		/>
		{#if way === 'day'}<Day
				label="{label} this day"
				unseen
				value={settings.text(name)}
				onchoose={(day) => day && settings.set(name, day)}
			/>
		{:else if way === 'rule'}<RuleBox
				{bench}
				label="{label}, as add_days(start, 1)"
				source={String(settings.get(name))}
				check={(source) => ruleFault(plan, field, { at: 'bound', source, wants: 'date' })}
				onchange={(rule) => settings.set(name, cutText(rule, 300))}
			/>{/if}
	</div>
{/each}
