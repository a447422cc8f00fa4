<script lang="ts">
	import { cutText } from '../../core/clean-text';
	import { CURRENCIES, freeKey, keyFault, plainKey, ruleFault } from '../../core/field';
	import { QUESTION_KINDS, type Item, type Question, type QuestionKind } from '../../core/intake';
	import type { Option } from '../../core/packet/plan';
	import { typedDecimal } from '../decimals';
	import Check from '../parts/Check.svelte';
	import Choice from '../parts/Choice.svelte';
	import { RuleBox } from '../rules';
	import type { Making } from './making.svelte';

	/** A question of the intake's own: what it asks, under which key, and what will do as an answer. */
	let { making, item }: { making: Making; item: Extract<Item, { is: 'question' }> } = $props();

	const question = $derived(item.question);
	const NAMES: Record<QuestionKind, string> = {
		text: 'text',
		number: 'number',
		date: 'date',
		choice: 'one of a list',
		'pick-one': 'pick one, all seen',
		ticks: 'tick boxes',
		email: 'e-mail',
		computed: 'computed'
	};
	const options = $derived(Array.isArray(question.settings['options']) ? question.settings['options'] : []);
	const hasOptions = $derived(['choice', 'pick-one', 'ticks'].includes(question.kind));

	const set = (change: Partial<Question>) =>
		making.setItem(item.id, (one) =>
			one.is === 'question' ? { ...one, question: { ...one.question, ...change } } : one
		);
	const setSetting = (name: string, value: string | number | boolean | undefined) => {
		const { [name]: _before, ...rest } = question.settings;
		set({ settings: value === undefined ? rest : { ...rest, [name]: value } });
	};
	function setBound(name: string, input: HTMLInputElement) {
		const typed = typedDecimal(input.value);
		if (typed === null) input.value = String(question.settings[name] ?? '');
		else setSetting(name, typed || undefined);
	}
	/** as long as nobody has chosen a key, it follows the label */
	function label(text: string) {
		const follows = question.key === plainKey(question.label) || question.key.startsWith('question_');
		set({ label: text, ...(follows && plainKey(text) && { key: plainKey(text) }) });
	}
	function setOptions(text: string) {
		const lines = text.split('\n').map((line) => cutText(line.trim(), 200));
		const list: Option[] = [];
		for (const line of lines.filter(Boolean).slice(0, 500))
			list.push({
				value: freeKey(
					plainKey(line) || 'value',
					list.map(({ value }) => value)
				),
				text: line
			});
		set({ settings: { ...question.settings, options: list } });
	}
	function setKind(kind: QuestionKind) {
		const keeps = ['choice', 'pick-one', 'ticks'].includes(kind) && options.length > 0;
		set({ kind, settings: keeps ? { options } : {} });
	}
	const own = $derived(making.plan.fields.find(({ id }) => id === `q-${item.id}`));
</script>

<div class="grid gap-3">
	<label
		>Question<input
			class="input mt-1"
			maxlength="200"
			value={question.label}
			oninput={(event) => label(event.currentTarget.value)}
		/></label
	>
	<div class="grid grid-cols-2 gap-3">
		<Choice
			label="Kind"
			value={question.kind}
			options={QUESTION_KINDS.map((kind): [string, string] => [kind, NAMES[kind]])}
			onchoose={(kind) => setKind(kind as QuestionKind)}
		/>
		<label
			>Key<input
				class="input mt-1 font-mono text-[13px]"
				maxlength="60"
				value={question.key}
				aria-invalid={keyFault(question.key) !== null}
				onchange={(event) => set({ key: plainKey(event.currentTarget.value) || question.key })}
			/></label
		>
	</div>
	{#if hasOptions}
		<label
			>To choose from, a line each<textarea
				class="input mt-1 h-24"
				value={options.map(({ text, value }) => text || value).join('\n')}
				onchange={(event) => setOptions(event.currentTarget.value)}></textarea></label
		>
	{:else if question.kind === 'number'}
		<div class="grid grid-cols-3 gap-3">
			{#each [['least', 'At least'], ['most', 'At most']] as const as [name, called] (name)}
				<label
					>{called}<input
						class="input mt-1"
						inputmode="decimal"
						value={question.settings[name] ?? ''}
						onchange={(event) => setBound(name, event.currentTarget)}
					/></label
				>
			{/each}
			<Choice
				label="Currency"
				value={String(question.settings['currency'] ?? '')}
				options={[['', 'none'], ...CURRENCIES.map((one): [string, string] => [one, one])]}
				onchoose={(one) => setSetting('currency', one || undefined)}
			/>
		</div>
	{:else if question.kind === 'computed' && own}
		<RuleBox
			bench={making}
			label="Computed by"
			source={String(question.settings['rule'] ?? '')}
			check={(source) => ruleFault(making.plan, own, { at: 'rule', source })}
			computes={own}
			onchange={(source) => setSetting('rule', source)}
		/>
	{/if}
	<label
		>Help beneath it<input
			class="input mt-1"
			maxlength="500"
			value={question.help ?? ''}
			onchange={(event) => set({ help: event.currentTarget.value })}
		/></label
	>
	{#if question.kind !== 'computed'}
		<Check label="Must be answered" checked={question.required} onchange={(required) => set({ required })} />
	{/if}
</div>
