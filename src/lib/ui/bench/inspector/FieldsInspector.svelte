<script lang="ts">
	import Check from '../../parts/Check.svelte';
	import Choice from '../../parts/Choice.svelte';
	import { asksSomebody, keyFault, kindOf, plainKey, questionOf, ruleFault } from '../../../core/field';
	import { EVERYBODY, SENDER, type Field } from '../../../core/packet';
	import ArrangePart from './ArrangePart.svelte';
	import type { Bench } from '../bench.svelte';
	import { copyFields, copyFor } from '../../../core/plan';
	import { changeFields, changeQuestion, giveTo, removeFields, setKey } from '../../../core/plan';
	import What from '../../help/What.svelte';
	import { INSPECTED } from './kinds';
	import { Settings } from './settings.svelte';
	import PinPart from './PinPart.svelte';
	import { personChoices } from '../person-choices';
	import { SenderPart } from '../route';
	import { WhenPart } from '../../rules';
	import WherePart from './WherePart.svelte';

	let { bench, fields, onrepeat }: { bench: Bench; fields: Field[]; onrepeat: () => void } = $props();

	const plan = $derived(bench.plan);
	const ids = $derived(fields.map((f) => f.id));
	// one field, or one question of several places
	const one = $derived(fields.length === 1 ? fields[0]! : null);
	const kind = $derived(kindOf(fields[0]!.kind));
	const asked = $derived(fields.some(asksSomebody));
	const texts = $derived(fields.every((f) => ['text', 'letters'].includes(kindOf(f.kind).drawn(f))));
	const twins = $derived(one ? questionOf(plan.fields, one).length : 1);
	const same = <T,>(of: (f: Field) => T): T | null =>
		fields.every((f) => of(f) === of(fields[0]!)) ? of(fields[0]!) : null;
	let typedKey = $state<string | null>(null);
	let keySay = $state('');

	function set(name: string, change: Partial<Field>, burst = true, all = false) {
		bench.change(
			fields.length === 1 ? name : `${name} of ${fields.length} fields`,
			(all ? changeQuestion : changeFields)(plan, ids, (f) => {
				const next = { ...f, ...change } as Field;
				for (const [key, value] of Object.entries(change)) if (value === undefined) delete next[key as keyof Field];
				return next;
			}),
			burst
		);
	}
	function key(text: string) {
		if (!one) return;
		typedKey = text;
		const fault = keyFault(text);
		const next = fault ?? setKey(plan, one.id, text);
		if (typeof next === 'string') keySay = `${next} ${one.key ? `“${one.key}” is kept.` : ''}`;
		else {
			keySay = '';
			bench.change('key', next, true);
		}
	}
	const settingsOf = (field: Field) =>
		new Settings(bench, () => bench.plan.fields.find((f) => f.id === field.id) ?? field);
	// another field: what was typed for the one before is not its key
	$effect(() => {
		void ids.join(' ');
		typedKey = null;
		keySay = '';
	});
</script>

<h2 class="pb-3 text-[16px]">
	{#if same((f) => f.kind)}{kind.name[0]!.toUpperCase() + kind.name.slice(1)}{:else}Fields{/if}
	<span class="text-[14px] font-normal text-quiet"
		>{one ? `page ${one.page + 1}` : `${fields.length} places`}{twins > 1
			? `, one of ${twins} with this key`
			: ''}</span
	>{#if twins > 1}&nbsp;<What topic="twins" of="twins" />{/if}
</h2>
<div class="grid gap-3">
	{#if one && one.person === SENDER && kind.filledBy === 'person'}
		<SenderPart {bench} field={one} />
	{/if}
	{#if one || same((f) => f.key)}
		<label
			>Label<input
				id="field-label"
				class="input mt-1"
				maxlength="200"
				value={same((f) => f.label) ?? ''}
				oninput={(e) => set('label', { label: e.currentTarget.value }, true, true)}
			/></label
		>
	{/if}
	{#if one && kind.filledBy !== 'nobody'}
		<div class="-mb-2 flex items-center gap-1">
			<label for="field-key">Key <span class="text-quiet">its name in data and rules</span></label>
			<What topic="keys" of="keys" />
		</div>
		<input
			id="field-key"
			class="input font-mono"
			maxlength="60"
			placeholder={plainKey(one.label)}
			aria-invalid={keySay !== ''}
			value={typedKey ?? one.key}
			oninput={(e) => key(e.currentTarget.value.trim())}
			onblur={() => (typedKey = null)}
		/>
		<p class="wrong -mt-2 empty:hidden" role="alert">{keySay}</p>
	{/if}
	{#if asked}
		<Choice
			label="Answered by"
			value={same((f) => f.person) ?? ''}
			options={[
				['', same((f) => f.person ?? '') === null ? 'several' : 'nobody yet'],
				...personChoices(bench.actors),
				[SENDER, 'me, before sending']
			]}
			onchoose={(whose) =>
				bench.change(
					fields.length === 1 ? 'give to somebody' : `give ${fields.length} fields to somebody`,
					giveTo(plan, ids, whose || null)
				)}
		/>
		<div class="flex flex-wrap gap-x-4 gap-y-1">
			<Check
				label="must be answered"
				checked={same((f) => f.required) ?? false}
				some={same((f) => f.required) === null}
				onchange={(required) => set('needed', { required }, false, true)}
			/>
			{#if fields.every((f) => kindOf(f.kind).filledBy === 'person')}
				<Check
					label="read only"
					checked={same((f) => f.readOnly === true) ?? false}
					some={same((f) => f.readOnly === true) === null}
					onchange={(on) => set('read only', { readOnly: on || undefined }, false, true)}
				/>
			{/if}
		</div>
		{#if one || same((f) => f.key)}
			<label
				>Help <span class="text-quiet">a line for whoever answers</span><input
					class="input mt-1"
					maxlength="500"
					value={same((f) => f.help ?? '') ?? ''}
					oninput={(e) => set('help', { help: e.currentTarget.value || undefined }, true, true)}
				/></label
			>
		{/if}
	{:else if same((f) => f.person) === EVERYBODY}
		<p class="text-quiet">Everybody sees it; nobody answers it.</p>
	{/if}
	{#if one}
		{@const Told = INSPECTED[one.kind]}
		{#if Told}{#key one.id}<Told settings={settingsOf(one)} />{/key}{/if}
		<WhenPart
			{bench}
			source={one.showWhen ?? ''}
			check={(source) => ruleFault(plan, one, { at: 'showWhen', source, wants: 'truth' })}
			offered={(key) => key !== one.key}
			title="Shown"
			always="always"
			onchange={(rule) => set('shown when', { showWhen: rule }, true, true)}
		/>
		{#if asked && !one.required}
			<WhenPart
				{bench}
				source={one.requireWhen ?? ''}
				check={(source) => ruleFault(plan, one, { at: 'requireWhen', source, wants: 'truth' })}
				title="Must be answered"
				always="never"
				onchange={(rule) => set('needed when', { requireWhen: rule }, true, true)}
			/>
		{/if}
	{/if}
	{#if texts}
		<fieldset class="grid grid-cols-2 gap-2">
			<legend class="pb-1">Text</legend>
			<label
				>Size<input
					class="input mt-1"
					type="number"
					min="4"
					max="72"
					step="0.5"
					placeholder="11"
					value={same((f) => f.fontSize ?? '') ?? ''}
					onchange={(e) => {
						const size = e.currentTarget.valueAsNumber;
						set('text size', { fontSize: size >= 4 && size <= 72 ? size : undefined }, false);
					}}
				/></label
			>
			<Choice
				label="Stands"
				value={same((f) => f.align ?? 'left') ?? ''}
				options={[
					['left', 'left'],
					['middle', 'in the middle'],
					['right', 'right']
				]}
				onchoose={(align) => set('text side', { align: align === 'left' ? undefined : (align as 'middle') }, false)}
			/>
			<div class="col-span-2">
				<Check
					label="gets smaller until it fits"
					checked={same((f) => f.shrink !== false) ?? false}
					some={same((f) => f.shrink !== false) === null}
					onchange={(on) => set('shrink', { shrink: on ? undefined : false }, false)}
				/>
			</div>
		</fieldset>
	{/if}
	{#if fields.length > 1 && same((f) => f.key) && kind.grouped}<p class="text-quiet">
			Press one of them once more, or Space on it, to change its own value and the group’s checks.
		</p>{/if}
	{#if fields.length > 1}<ArrangePart {bench} {ids} />{/if}
	{#if one && asked}
		<label
			>Turn <span class="text-quiet">in the order of answering; empty: as one reads</span><input
				class="input mt-1"
				type="number"
				min="1"
				max="9999"
				value={one.tab ?? ''}
				onchange={(e) => {
					const tab = Math.round(e.currentTarget.valueAsNumber);
					set('turn', { tab: tab >= 1 && tab <= 9999 ? tab : undefined }, false);
				}}
			/></label
		>
	{/if}
	{#if one}<WherePart {bench} field={one} />{/if}
	<PinPart {bench} {fields} />
	<div class="flex flex-wrap gap-2 pt-1">
		<button
			class="button"
			onclick={() => {
				const copied = copyFields(plan, ids);
				bench.change('copy', copied.plan);
				bench.chooseFields(copied.fields);
			}}>Copy</button
		>
		<button class="button" onclick={onrepeat}>Repeat on pages…</button>
		{#if asked && bench.actors.length > 1}
			<Choice
				label="Copy for another person"
				unseen
				narrow
				empty="Copy for…"
				value=""
				options={personChoices(
					bench.actors,
					same((f) => f.person)
				)}
				onchoose={(person) => {
					const copied = copyFor(plan, ids, person);
					bench.change(`copy ${copied.fields.length} fields for somebody`, copied.plan);
					bench.chooseFields(copied.fields);
				}}
			/>
		{/if}
		<button
			class="button grave"
			onclick={() => {
				bench.change(fields.length === 1 ? 'remove' : `remove ${fields.length} fields`, removeFields(plan, ids));
				bench.chooseFields([]);
			}}>Remove</button
		>
	</div>
</div>
