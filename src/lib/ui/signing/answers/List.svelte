<script lang="ts">
	import { optionsOf } from '../../../core/field';
	import { useWords } from '../words';
	import type { Asked } from './asked';

	/** One out of a list; the list that opens is fetched only by whoever is asked so. */
	let { field, answer, large, invalid, ongive }: Asked = $props();
	const words = useWords();
</script>

{#await import('../../parts/Choice.svelte') then { default: Choice }}
	<Choice
		label={field.label}
		unseen
		{large}
		{invalid}
		empty={words()('answer.choose')}
		value={answer && 'choice' in answer ? answer.choice : ''}
		options={[
			['', words()('answer.choose')],
			...optionsOf(field).map(({ value, text }): [string, string] => [value, text || value])
		]}
		onchoose={(choice) => ongive(choice === '' ? null : { choice })}
	/>
{/await}
