<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '../forms';
	import type { Mapping } from '../../core/sheet';
	import Choice from '../parts/Choice.svelte';
	import More from '../parts/More.svelte';
	import type { Wanted } from './shapes';

	/** Which column is what; where none is, what holds for every row. */
	let {
		wanted,
		names,
		mapping,
		values
	}: { wanted: Wanted[]; names: string[]; mapping: Mapping; values: Record<string, string> } = $props();

	const used = (one: Wanted) => mapping[one.id] !== undefined || (values[one.id] ?? '') !== '';
	const seen = $derived(wanted.filter((one) => one.needed || used(one) || one.id.startsWith('answer.')));
	const rest = $derived(wanted.filter((one) => !seen.includes(one)));
	const unsure = $derived(wanted.some((one) => mapping[one.id]?.sure === false));
	const options = $derived(names.map((name, i): [string, string] => [i.toString(), name]));
</script>

{#snippet column(one: Wanted)}
	{@const source = mapping[one.id]}
	<div class="grid gap-1.5 {source?.sure === false ? 'border-l-2 border-copper pl-2' : ''}">
		<Choice
			label="{one.name}{one.needed ? '' : ', may be left'}"
			name={one.id}
			value={source?.columns[0]?.toString() ?? ''}
			options={[['', values[one.id] ? 'the same for every row' : 'no column'], ...options]}
		/>
		{#if source}
			{#if one.joins}<Choice
					label="{one.name}: and then"
					unseen
					name="{one.id} then"
					value={source.columns[1]?.toString() ?? ''}
					options={[
						['', source.turned ? '“Last, First” is turned' : 'and nothing more'],
						...options.map(([i, name]): [string, string] => [i, `and ${name}`])
					]}
				/>{/if}
			{#if !source.sure}<p class="text-[13px] text-copper">likely: is it right?</p>{/if}
		{:else if one.choices.length > 0}
			<Choice
				label="{one.name}: for every row"
				unseen
				name="{one.id} all"
				value={values[one.id] ?? ''}
				options={[['', 'nothing for every row'], ...one.choices.map((choice): [string, string] => [choice, choice])]}
			/>
		{:else}
			<input
				class="input"
				name="{one.id} all"
				maxlength="1000"
				aria-label="{one.name}: for every row"
				placeholder="the same for every row"
				value={values[one.id] ?? ''}
			/>
		{/if}
	</div>
{/snippet}

<form
	method="POST"
	action="?/columns"
	use:enhance={keepFilled}
	class="grid gap-3"
	onchange={(event) => event.currentTarget.requestSubmit()}
>
	{#each seen as one (one.id)}{@render column(one)}{/each}
	{#if unsure}<p><button class="button" name="do" value="right">All of these are right</button></p>{/if}
	{#if rest.length > 0}
		<More label="What a row may bring besides" look="">
			<div class="grid gap-3 pt-2">
				{#each rest as one (one.id)}{@render column(one)}{/each}
			</div>
		</More>
	{/if}
	<noscript><button class="button">Take these</button></noscript>
</form>
