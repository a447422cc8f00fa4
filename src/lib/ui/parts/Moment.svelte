<script lang="ts">
	import { Time } from '@internationalized/date';
	import { TimeField } from 'bits-ui';
	import Day from './Day.svelte';

	/** A day and the time of it, as `2026-12-02T14:05`, by the clock of whoever looks. */
	let {
		label,
		value,
		locale = 'en-GB',
		onchoose
	}: { label: string; value: string; locale?: string; onchoose: (moment: string) => void } = $props();

	const day = $derived(value.slice(0, 10));
	const time = $derived.by(() => {
		const [hour, minute] = value.slice(11, 16).split(':').map(Number);
		return hour === undefined || Number.isNaN(hour) ? undefined : new Time(hour, minute ?? 0);
	});
	const two = (n: number) => String(n).padStart(2, '0');
</script>

<div class="flex items-end gap-2" role="group" aria-label={label}>
	<div class="w-44">
		<Day
			label="{label}: day"
			unseen
			value={day}
			{locale}
			onchoose={(next) => onchoose(`${next}T${value.slice(11, 16) || '09:00'}`)}
		/>
	</div>
	<TimeField.Root
		value={time}
		{locale}
		onValueChange={(next) => next && onchoose(`${day}T${two(next.hour)}:${two(next.minute)}`)}
	>
		<TimeField.Label class="unseen">{label}: time</TimeField.Label>
		<TimeField.Input class="input flex w-24! items-center" aria-label="{label}: time">
			{#snippet children({ segments })}
				{#each segments as { part, value: written }, i (i)}
					<TimeField.Segment {part} class={part === 'literal' ? 'text-quiet' : 'rounded-sm px-0.5 focus:bg-wash'}
						>{written}</TimeField.Segment
					>
				{/each}
			{/snippet}
		</TimeField.Input>
	</TimeField.Root>
</div>
