<script lang="ts">
	import { groupOptions, questionOf } from '../../../core/field';
	import type { Asked } from './asked';

	/** One of the buttons of a group. */
	let { field, fields, answer, large, ongive }: Asked = $props();
	const options = $derived(groupOptions(questionOf(fields, field)));
</script>

<div role="radiogroup" aria-label={field.label} class="grid">
	{#each options as option (option.value)}
		<label class="flex items-center gap-2 {large ? 'min-h-[44px]' : ''}"
			><input
				class="size-5"
				type="radio"
				name="pick-{field.id}"
				checked={answer !== undefined && 'choice' in answer && answer.choice === option.value}
				onchange={() => ongive({ choice: option.value })}
			/>
			{option.text}</label
		>
	{/each}
</div>
