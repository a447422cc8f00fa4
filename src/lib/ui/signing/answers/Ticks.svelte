<script lang="ts">
	import { groupOptions, questionOf } from '../../../core/field';
	import type { Asked } from './asked';

	/** Boxes of a group, as many as apply. */
	let { field, fields, answer, large, ongive }: Asked = $props();
	const options = $derived(groupOptions(questionOf(fields, field)));
	const ticked = $derived(answer && 'ticks' in answer ? answer.ticks : []);

	function tick(value: string, on: boolean) {
		const ticks = options.map((o) => o.value).filter((v) => (v === value ? on : ticked.includes(v)));
		ongive(ticks.length === 0 ? null : { ticks });
	}
</script>

<div role="group" aria-label={field.label} class="grid">
	{#each options as option (option.value)}
		<label class="flex items-center gap-2 {large ? 'min-h-[44px]' : ''}"
			><input
				class="size-5"
				type="checkbox"
				checked={ticked.includes(option.value)}
				onchange={(e) => tick(option.value, e.currentTarget.checked)}
			/>
			{options.length === 1 && !field.settings['text'] ? field.label : option.text}</label
		>
	{/each}
</div>
