<script lang="ts">
	import Choice from '../parts/Choice.svelte';
	import Day from '../parts/Day.svelte';
	import { groupOptions, keyTypes, optionsOf, questionOfKey } from '../../core/field';
	import { howsFor, ruleOf, simpleOf, type How, type RuleFault } from '../../core/rule';
	import type { Ground } from './ground';
	import RuleBox from './RuleBox.svelte';

	/** When something holds: always, by a simple condition put together here, or by a rule that is written. */
	let {
		bench,
		source,
		title,
		always,
		check,
		offered = () => true,
		onchange
	}: {
		bench: Ground;
		/** the rule as it stands; '' where there is none */
		source: string;
		title: string;
		/** what it is called when there is no rule */
		always: string;
		/** what is wrong with a rule, and where */
		check: (source: string) => RuleFault | null;
		/** which answers may be asked for */
		offered?: (key: string) => boolean;
		onchange: (rule: string | undefined) => void;
	} = $props();

	const plan = $derived(bench.plan);
	const types = $derived(keyTypes(plan));
	const keys = $derived(Object.keys(types).filter(offered));
	const simple = $derived(source === '' ? null : simpleOf(source));
	let written = $state(false);
	const way = $derived(source === '' && !written ? 'always' : simple && !written ? 'simple' : 'rule');
	const type = $derived(simple ? types[simple.key] : undefined);
	const options = $derived.by(() => {
		const question = simple ? questionOfKey(plan.fields, simple.key) : undefined;
		if (!question) return [];
		return question[0]!.kind === 'choice'
			? optionsOf(question[0]!)
			: question[0]!.kind === 'pick-one' || question[0]!.kind === 'ticks'
				? groupOptions(question)
				: [];
	});
	const valued = $derived(simple !== null && !['is answered', 'is empty'].includes(simple.how));

	function choose(value: string) {
		written = value === 'rule';
		if (value === 'always') onchange(undefined);
		if (value === 'simple' && keys[0]) set({ key: keys[0] });
	}

	function set(change: { key?: string; how?: How; value?: string }) {
		const key = change.key ?? simple?.key ?? keys[0]!;
		const of = types[key]!;
		const hows = howsFor(of);
		const how = change.how ?? (simple && hows.includes(simple.how) && !change.key ? simple.how : hows[0]!);
		const question = questionOfKey(plan.fields, key);
		const first =
			question?.[0]?.kind === 'choice'
				? optionsOf(question[0])[0]?.value
				: question && of !== 'truth'
					? groupOptions(question)[0]?.value
					: undefined;
		const kept = change.key === undefined ? simple?.value : undefined;
		const known = question && ['choice', 'pick-one', 'ticks'].includes(question[0]!.kind) ? first : undefined;
		const value =
			change.value ??
			(kept || (known ?? (of === 'truth' ? 'yes' : of === 'number' ? '0' : of === 'date' ? bench.today : '')));
		written = false;
		onchange(ruleOf({ key, how, value }, of));
	}
</script>

<fieldset class="grid gap-2">
	<legend class="pb-1">{title}</legend>
	<Choice
		label={title}
		unseen
		value={way}
		options={[
			['always', always],
			[
				'simple',
				`when another answer is …${keys.length === 0 ? ' (no answer can be asked for yet)' : ''}`,
				keys.length === 0
			],
			['rule', 'by a rule I write']
		]}
		onchoose={choose}
	/>
	{#if way === 'simple' && simple}
		<div class="grid grid-cols-2 gap-1">
			<Choice
				label="{title}: which answer"
				unseen
				value={simple.key}
				options={keys.map((key) => [key, key])}
				onchoose={(key) => set({ key })}
			/>
			<Choice
				label="{title}: how"
				unseen
				value={simple.how}
				options={howsFor(type ?? 'text').map((how) => [how, how])}
				onchoose={(how) => set({ how: how as How })}
			/>
			{#if valued}
				{#if type === 'truth'}
					<div class="col-span-2">
						<Choice
							label="{title}: value"
							unseen
							value={simple.value}
							options={[
								['yes', 'yes'],
								['no', 'no']
							]}
							onchoose={(value) => set({ value })}
						/>
					</div>
				{:else if options.length > 0}
					<div class="col-span-2">
						<Choice
							label="{title}: value"
							unseen
							value={simple.value}
							options={options.map(({ value, text }) => [value, text || value])}
							onchoose={(value) => set({ value })}
						/>
					</div>
				{:else if type === 'date'}
					<div class="col-span-2">
						<Day label="{title}: value" unseen value={simple.value} onchoose={(value) => set({ value })} />
					</div>
				{:else}
					<input
						class="input col-span-2"
						aria-label="{title}: value"
						type="text"
						inputmode={type === 'number' ? 'decimal' : undefined}
						value={simple.value}
						onchange={(e) => set({ value: e.currentTarget.value })}
					/>
				{/if}
			{/if}
		</div>
	{:else if way === 'rule'}
		<RuleBox
			{bench}
			label="Rule"
			{source}
			{check}
			{offered}
			onchange={(rule) => {
				written = true;
				onchange(rule);
			}}
		/>
	{/if}
</fieldset>
