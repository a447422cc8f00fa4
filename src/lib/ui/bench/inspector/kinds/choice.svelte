<script lang="ts">
	import { cutText } from '../../../../core/clean-text';
	import { optionsOf } from '../../../../core/field';
	import GripVertical from '@lucide/svelte/icons/grip-vertical';
	import X from '@lucide/svelte/icons/x';
	import Choice from '../../../parts/Choice.svelte';
	import More from '../../../parts/More.svelte';
	import Ordered from '../../../parts/Ordered.svelte';
	import type { Settings } from '../settings.svelte';

	/** The list to choose from. */
	let { settings }: { settings: Settings } = $props();

	const field = $derived(settings.field);
	function options(text: string) {
		const list = text
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean)
			.map((line) => {
				const [value, ...shown] = line.split('=');
				return { value: cutText(value!.trim(), 200) || 'value', text: cutText(shown.join('=').trim(), 200) };
			})
			.slice(0, 500);
		settings.set('options', list);
	}
	interface Row {
		id: string;
		value: string;
		text: string;
	}
	const rows = $derived(
		optionsOf(field).map(({ value, text }, i): Row => ({ id: `${i} ${value}`, value, text: text ?? '' }))
	);
	const put = (next: Row[]) =>
		settings.set(
			'options',
			next.map(({ value, text }) => ({ value, text: text === value ? '' : text }))
		);
	const change = (i: number, one: Partial<Row>) => put(rows.map((row, n) => (n === i ? { ...row, ...one } : row)));
	const listed = $derived(
		optionsOf(field)
			.map((o) => (o.text && o.text !== o.value ? `${o.value} = ${o.text}` : o.value))
			.join('\n')
	);
</script>

<div>
	<p class="pb-1">The list <span class="text-quiet">drag into order; the text only where it differs</span></p>
	<Ordered
		label="Options"
		items={rows}
		name={(row) => row.text || row.value}
		look="flex items-center gap-1.5 pb-1"
		onorder={(ids) => put(ids.map((id) => rows.find((row) => row.id === id)!))}
	>
		{#snippet row(option, i)}
			<GripVertical size={14} class="shrink-0 cursor-grab text-quiet" aria-hidden="true" />
			<input
				class="input"
				maxlength="200"
				aria-label="Value {i + 1}"
				value={option.value}
				onchange={(e) => change(i, { value: e.currentTarget.value.trim() || 'value' })}
			/>
			<input
				class="input"
				maxlength="200"
				aria-label="Text of value {i + 1}"
				placeholder="text"
				value={option.text}
				onchange={(e) => change(i, { text: e.currentTarget.value.trim() })}
			/>
			<button
				type="button"
				class="plain"
				aria-label="Take out {option.text || option.value}"
				onclick={() => put(rows.filter((_, n) => n !== i))}><X size={14} aria-hidden="true" /></button
			>
		{/snippet}
	</Ordered>
	<p class="flex items-center gap-3">
		<button
			type="button"
			class="button"
			disabled={rows.length >= 500}
			onclick={() => put([...rows, { id: '', value: `option ${rows.length + 1}`, text: '' }])}>Add one</button
		>
	</p>
	<More label="all as lines">
		<label
			>One a line <span class="text-quiet">“value = text” where they differ</span><textarea
				class="input mt-1 min-h-24"
				value={listed}
				onchange={(e) => options(e.currentTarget.value)}></textarea></label
		>
	</More>
</div>
<Choice
	label="Chosen to begin with"
	value={settings.text('default')}
	options={[['', 'nothing'], ...optionsOf(field).map(({ value, text }): [string, string] => [value, text || value])]}
	onchoose={(first) => settings.set('default', first)}
/>
