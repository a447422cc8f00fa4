<script lang="ts">
	import { inWords } from '../../core/field';
	import type { Item } from '../../core/intake';
	import AnswerInput from '../signing/AnswerInput.svelte';
	import type { Visit } from './visit.svelte';

	/** One question of a page: its label, its input, what is wrong; a reckoned value stands as it is, a forced one with its reason. */
	let { visit, item }: { visit: Visit; item: Item } = $props();

	const field = $derived(visit.fieldOf(item));
	const fields = $derived(visit.of.plan.fields.filter((one) => one.person === visit.of.setting.starter));
	const answer = $derived(field && visit.way.now.answer(field));
	const forced = $derived(field ? visit.way.forced[field.key] : undefined);
	// files are handed in on the document
	const keeper = { picture: async () => '', file: async () => '' };
</script>

{#if field}
	<div class="py-3" data-asks={field.key}>
		<p class="pb-1 font-semibold" aria-hidden="true">{field.label}</p>
		{#if field.kind === 'computed' || forced}
			<p class="text-[19px] tabular-nums" aria-label={field.label} role="status">
				{(answer && inWords({ fields }, field, answer, visit.locale)) || '–'}
			</p>
			{#if forced}<p class="text-[15px] text-quiet">{forced.say}</p>{/if}
		{:else}
			<AnswerInput
				{field}
				{fields}
				answer={answer ?? undefined}
				wrong={visit.wrong(field)}
				locale={visit.locale}
				name={visit.visitor.name}
				{keeper}
				ongive={(given) => visit.give(field, given)}
			/>
		{/if}
	</div>
{/if}
