<script lang="ts">
	import { useWords } from '../words';
	import type { Asked } from './asked';

	/** A day; the calendar is fetched only by whoever is asked for one. */
	let { field, answer, invalid, large, ongive, onenter }: Asked = $props();
	const words = useWords();
	const day = $derived(answer && 'day' in answer && !('at' in answer) ? answer.day : '');
</script>

{#await import('../../parts/Day.svelte') then { default: Day }}
	<!-- svelte-ignore a11y_no_static_element_interactions (Enter goes on, as in every other answer) -->
	<div
		onkeydown={(event) => event.key === 'Enter' && (event.target as HTMLElement).role === 'spinbutton' && onenter?.()}
	>
		<Day
			label={field.label}
			unseen
			{large}
			{invalid}
			value={day}
			locale={words().language === 'en' ? 'en-GB' : words().language}
			onchoose={(chosen) => ongive(chosen === '' ? null : { day: chosen })}
		/>
	</div>
{/await}
