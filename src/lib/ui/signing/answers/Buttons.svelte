<script lang="ts">
	import { groupOptions, questionOf } from '../../../core/field';
	import type { Asked } from './asked';

	/** The buttons of a group: one of them, or of tick boxes as many as apply. */
	let { field, fields, answer, large, ongive }: Asked = $props();

	const several = $derived(field.kind === 'ticks');
	const options = $derived(groupOptions(questionOf(fields, field)));
	const chosen = $derived(!answer ? [] : 'ticks' in answer ? answer.ticks : 'choice' in answer ? [answer.choice] : []);

	function choose(value: string, on: boolean) {
		if (!several) return ongive({ choice: value });
		const ticks = options.map((o) => o.value).filter((v) => (v === value ? on : chosen.includes(v)));
		ongive(ticks.length === 0 ? null : { ticks });
	}
</script>

<div role={several ? 'group' : 'radiogroup'} aria-label={field.label} class="grid">
	{#each options as option (option.value)}
		<label class="flex items-center gap-2 {large ? 'min-h-[44px]' : ''}"
			><input
				class="size-5"
				type={several ? 'checkbox' : 'radio'}
				name="buttons-{field.id}"
				checked={chosen.includes(option.value)}
				onchange={(e) => choose(option.value, e.currentTarget.checked)}
			/>
			{several && options.length === 1 && !field.settings['text'] ? field.label : option.text}</label
		>
	{/each}
</div>
