<script lang="ts">
	import { groupOptions, optionsOf, questionOfKey } from '../../core/field';
	import type { Say } from '../../core/intake';
	import { keyOf } from '../../core/intake';
	import Choice from '../parts/Choice.svelte';
	import OneOf from '../parts/OneOf.svelte';
	import { WhenPart } from '../rules';
	import Faults from './Faults.svelte';
	import type { Making } from './making.svelte';

	/** A rule that speaks: when, what it says, and what it does besides. */
	let { making, say }: { making: Making; say: Say } = $props();

	const put = (change: Partial<Say>) =>
		making.change(`rule ${say.id}`, (now) => ({
			...now,
			says: now.says.map((one) => {
				if (one.id !== say.id) return one;
				const { closes: _closes, forces: _forces, ...rest } = { ...one, ...change };
				const { closes, forces } = { ...one, ...change };
				return { ...rest, ...(closes && { closes }), ...(forces && { forces }) };
			})
		}));
	const keys = $derived(
		making.setting.pages
			.flatMap((page) => page.items.flatMap((item) => keyOf(item) ?? []))
			.map((key): [string, string] => [key, key])
	);
	const does = $derived(say.closes ? 'closes' : say.forces ? 'forces' : 'says');
	const options = $derived.by(() => {
		const question = say.forces ? questionOfKey(making.plan.fields, say.forces.key) : undefined;
		if (!question) return [];
		return question[0]!.kind === 'choice'
			? optionsOf(question[0]!)
			: question[0]!.kind === 'pick-one'
				? groupOptions(question)
				: [];
	});
	function choose(what: string) {
		put({
			closes: what === 'closes' ? true : undefined,
			forces: what === 'forces' && keys[0] ? { key: keys[0][0], answer: '' } : undefined
		} as Partial<Say>);
	}
</script>

<div class="grid max-w-xl gap-4">
	<h2 class="text-[16px]">A rule that speaks</h2>
	<WhenPart
		bench={making}
		title="When"
		always="never (choose a condition)"
		source={say.when}
		check={making.check}
		offered={making.offered}
		onchange={(when) => put({ when: when ?? '' })}
	/>
	<label
		>It says<textarea
			class="input mt-1 h-24"
			maxlength="1000"
			value={say.say}
			oninput={(event) => put({ say: event.currentTarget.value || ' ' })}></textarea></label
	>
	<OneOf
		label="Besides"
		bind:value={() => does, choose}
		options={[
			['says', 'nothing'],
			['closes', 'it closes this way'],
			['forces', 'it forces an answer']
		]}
	/>
	{#if say.forces}
		<div class="grid grid-cols-2 gap-3">
			<Choice
				label="The answer to"
				value={say.forces.key}
				options={keys}
				onchoose={(key) => put({ forces: { key, answer: '' } })}
			/>
			{#if options.length > 0}
				<Choice
					label="is"
					value={say.forces.answer}
					options={options.map(({ value, text }): [string, string] => [value, text || value])}
					onchoose={(answer) => put({ forces: { ...say.forces!, answer } })}
				/>
			{:else}
				<label
					>is<input
						class="input mt-1"
						maxlength="1000"
						value={say.forces.answer}
						oninput={(event) => put({ forces: { ...say.forces!, answer: event.currentTarget.value } })}
					/></label
				>
			{/if}
		</div>
	{/if}
	<Faults {making} at={say.id} />
	<p>
		<button
			type="button"
			class="button grave"
			onclick={() => making.set({ says: making.setting.says.filter((one) => one.id !== say.id) })}
			>Remove the rule</button
		>
	</p>
</div>
