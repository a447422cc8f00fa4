<script lang="ts">
	import { kindOf } from '../../core/field';
	import type { Field } from '../../core/packet';
	import { toShown } from '../../core/page';
	import type { Bench } from './bench.svelte';
	import { changeFields, copyFields, pageOf, removeFields, shiftFields } from './edits';

	let { bench, fields }: { bench: Bench; fields: Field[] } = $props();

	const MM = 72 / 25.4;
	const plan = $derived(bench.plan);
	const ids = $derived(fields.map((f) => f.id));
	const one = $derived(fields.length === 1 ? fields[0]! : null);
	const page = $derived(one ? pageOf(plan, one) : undefined);
	const at = $derived(one && page ? toShown(page, one.rect) : null);
	const same = <T,>(of: (f: Field) => T): T | null =>
		fields.every((f) => of(f) === of(fields[0]!)) ? of(fields[0]!) : null;
	const mm = (points: number) => Math.round((points / MM) * 10) / 10;

	function set(name: string, change: Partial<Field>, burst = true) {
		bench.change(
			name,
			changeFields(plan, ids, (f) => ({ ...f, ...change })),
			burst
		);
	}
	function setting(key: string, value: string | number | boolean | undefined) {
		bench.change(
			'setting',
			changeFields(plan, ids, (f) => {
				const { [key]: _old, ...rest } = f.settings;
				return { ...f, settings: value === undefined ? rest : { ...rest, [key]: value } };
			})
		);
	}
	function measure(side: 'left' | 'top' | 'width' | 'height', input: HTMLInputElement) {
		const wanted = input.valueAsNumber * MM;
		if (at && Number.isFinite(wanted)) bench.change('place', shiftFields(plan, ids, { [side]: wanted - at[side] }));
		else if (at) input.value = String(mm(at[side]));
	}
	const SIDES = [
		['left', 'From left'],
		['top', 'From top'],
		['width', 'Width'],
		['height', 'Height']
	] as const;
</script>

<h2 class="pb-3 text-[16px]">
	{#if one}{kindOf(one.kind).name[0]!.toUpperCase() + kindOf(one.kind).name.slice(1)}{:else}{fields.length} fields{/if}
	<span class="text-[14px] font-normal text-quiet">{one ? `page ${one.page + 1}` : ''}</span>
</h2>
<div class="grid gap-3">
	{#if one}
		<label
			>Label<input
				id="field-label"
				class="input mt-1"
				maxlength="200"
				value={one.label}
				oninput={(e) => set('label', { label: e.currentTarget.value })}
			/></label
		>
		<label
			>Key <span class="text-quiet">its name in data</span><input
				class="input mt-1 font-mono"
				maxlength="80"
				value={one.key}
				oninput={(e) => set('key', { key: e.currentTarget.value })}
			/></label
		>
	{/if}
	<label
		>Answered by
		<select
			class="input mt-1"
			value={same((f) => f.person) ?? ''}
			onchange={(e) => set('give to somebody', { person: e.currentTarget.value || null }, false)}
		>
			<option value="">{same((f) => f.person ?? '') === null ? 'several' : 'nobody yet'}</option>
			{#each plan.people.filter((p) => p.duty !== 'gets a copy') as person (person.id)}<option value={person.id}
					>{person.name || 'No name yet'}</option
				>{/each}
		</select>
	</label>
	<label class="flex items-center gap-2"
		><input
			type="checkbox"
			checked={same((f) => f.required) ?? false}
			indeterminate={same((f) => f.required) === null}
			onchange={(e) => set('needed', { required: e.currentTarget.checked }, false)}
		/> must be answered</label
	>
	{#if one?.kind === 'name'}
		<label
			>Which part<select
				class="input mt-1"
				value={one.settings['part'] ?? 'full'}
				onchange={(e) => setting('part', e.currentTarget.value)}
				><option value="full">in full</option><option value="given">given name</option><option value="family"
					>family name</option
				></select
			></label
		>
	{:else if one?.kind === 'signing-date'}
		<label
			>Written<select
				class="input mt-1"
				value={one.settings['format'] ?? 'long'}
				onchange={(e) => setting('format', e.currentTarget.value)}
				><option value="long">2 December 2026</option><option value="medium">2 Dec 2026</option><option value="iso"
					>2026-12-02</option
				></select
			></label
		>
	{:else if one?.kind === 'text'}
		<label class="flex items-center gap-2"
			><input
				type="checkbox"
				checked={one.settings['several'] === true}
				onchange={(e) => setting('several', e.currentTarget.checked || undefined)}
			/> several lines</label
		>
		<label
			>Characters at most<input
				class="input mt-1"
				type="number"
				min="1"
				max="2000"
				value={one.settings['most'] ?? ''}
				onchange={(e) => {
					const most = Math.round(e.currentTarget.valueAsNumber);
					setting('most', most >= 1 && most <= 2000 ? most : undefined);
				}}
			/></label
		>
	{/if}
	{#if at}
		<h3 class="border-t border-hairline pt-3 text-[15px]">
			Where <span class="font-sans text-[13px] font-normal text-quiet">millimetres</span>
		</h3>
		<div class="grid grid-cols-2 gap-2">
			{#each SIDES as [side, name] (side)}
				<label
					>{name}<input
						class="input mt-1"
						type="number"
						step="0.1"
						value={mm(at[side])}
						onchange={(e) => measure(side, e.currentTarget)}
					/></label
				>
			{/each}
		</div>
	{/if}
	<p class="flex gap-2 pt-2">
		<button
			class="button"
			onclick={() => {
				const copied = copyFields(plan, ids);
				bench.change('copy', copied.plan);
				bench.chooseFields(copied.fields);
			}}>Copy</button
		>
		<button
			class="button grave"
			onclick={() => {
				bench.change('remove', removeFields(plan, ids));
				bench.chooseFields([]);
			}}>Remove</button
		>
	</p>
</div>
