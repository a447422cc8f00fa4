<script lang="ts">
	import Day from '../parts/Day.svelte';
	import Choice from '../parts/Choice.svelte';
	import { cutText } from '../../core/clean-text';
	import {
		COUNTRIES,
		countryName,
		CURRENCIES,
		DATE_FORMATS,
		dayShown,
		FILE_TYPES,
		keyTypes,
		MOST_MEGABYTES,
		optionsOf,
		PATTERNS,
		questionOf,
		ruleFault,
		ruleOfComputed,
		textOfButton,
		textSettingsFault,
		valueOf
	} from '../../core/field';
	import { localeOf, type Field } from '../../core/packet';
	import { dayOf } from '../../core/rule';
	import type { Bench } from './bench.svelte';
	import { changeFields, changeQuestion } from './field-edits';
	import RuleBox from './RuleBox.svelte';
	import { upload } from '../signing/keeper';

	/** What only this kind of field can be told. Checks hold for all its twins, a button's value for itself. */
	let { bench, field }: { bench: Bench; field: Field } = $props();

	const plan = $derived(bench.plan);
	const s = $derived(field.settings as Record<string, string | number | boolean | undefined>);
	const question = $derived(questionOf(plan.fields, field));
	let say = $state('');

	const PATTERN_NAMES: Record<(typeof PATTERNS)[number], string> = {
		digits: 'digits only',
		letters: 'letters only',
		postcode: 'a postcode',
		phone: 'a phone number',
		iban: 'an IBAN, with its check digits',
		own: 'a pattern of my own'
	};

	function set(name: string, value: Field['settings'][string] | undefined, own = false) {
		const change = (f: Field): Field => {
			const { [name]: _old, ...rest } = f.settings;
			return { ...f, settings: value === undefined || value === '' ? rest : { ...rest, [name]: value } };
		};
		bench.change(`set ${name}`, (own ? changeFields : changeQuestion)(plan, [field.id], change), true);
	}
	/** a whole number within bounds, or none */
	function count(name: string, input: HTMLInputElement, least: number, most: number) {
		const value = Math.round(input.valueAsNumber);
		if (input.value === '') set(name, undefined);
		else if (value >= least && value <= most) set(name, value);
		else input.value = String(s[name] ?? '');
	}
	function decimal(name: string, input: HTMLInputElement) {
		const text = input.value.trim().replace(',', '.');
		if (text === '' || /^-?\d{1,30}(\.\d{1,30})?$/.test(text)) set(name, text || undefined);
		else input.value = String(s[name] ?? '');
	}

	/** a date's bound: a day, or so many days from another date */
	const boundWay = (bound: unknown) => (bound === undefined ? 'none' : dayOf(String(bound)) ? 'day' : 'rule');
	function boundTo(name: 'least' | 'most', way: string) {
		set(name, way === 'none' ? undefined : way === 'day' ? bench.today : 'today');
	}

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
		set('options', list);
	}
	const listed = $derived(
		optionsOf(field)
			.map((o) => (o.text && o.text !== o.value ? `${o.value} = ${o.text}` : o.value))
			.join('\n')
	);

	async function picture(input: HTMLInputElement) {
		const file = input.files?.[0];
		if (!file) return;
		say = 'Taking it in…';
		const got = await upload<{ digest: string }>(`/bench/${bench.id}/files`, file);
		if (typeof got === 'string') say = `${got} Everything else is kept.`;
		else {
			say = '';
			set('picture', got.digest);
		}
		input.value = '';
	}
	function type(name: string, on: boolean) {
		const have = String(s['types'] ?? Object.keys(FILE_TYPES).join(',')).split(',');
		const next = Object.keys(FILE_TYPES).filter((t) => (t === name ? on : have.includes(t)));
		if (next.length > 0) set('types', next.length === Object.keys(FILE_TYPES).length ? undefined : next.join(','));
	}
</script>

{#snippet whole(name: string, label: string, least: number, most: number)}
	<label
		>{label}<input
			class="input mt-1"
			type="number"
			min={least}
			max={most}
			value={s[name] ?? ''}
			onchange={(e) => count(name, e.currentTarget, least, most)}
		/></label
	>
{/snippet}
{#snippet tick(name: string, label: string, own = false)}
	<label class="flex items-center gap-2"
		><input
			type="checkbox"
			checked={s[name] === true}
			onchange={(e) => set(name, e.currentTarget.checked || undefined, own)}
		/>
		{label}</label
	>
{/snippet}
{#snippet numberLook()}
	<div class="grid grid-cols-2 gap-2">
		{@render whole('decimals', 'Decimals', 0, 6)}
		<Choice
			label="Currency"
			value={String(s['currency'] ?? '')}
			options={[['', 'none'], ...CURRENCIES.map((code): [string, string] => [code, code])]}
			onchoose={(code) => set('currency', code)}
		/>
	</div>
	{#if s['currency']}
		<Choice
			label="Written"
			value={String(s['money'] ?? 'symbol')}
			options={[
				['symbol', 'with its sign'],
				['code', 'with its code']
			]}
			onchoose={(money) => set('money', money)}
		/>
	{/if}
{/snippet}
{#snippet dateLook()}
	<Choice
		label="Written"
		value={String(s['format'] ?? 'long')}
		options={DATE_FORMATS.map((format) => [format, dayShown('2026-12-02', format, localeOf(plan))])}
		onchoose={(format) => set('format', format)}
	/>
{/snippet}

{#if field.kind === 'name'}
	<Choice
		label="Which part"
		value={String(s['part'] ?? 'full')}
		options={[
			['full', 'in full'],
			['given', 'given name'],
			['family', 'family name']
		]}
		onchoose={(part) => set('part', part)}
	/>
{:else if field.kind === 'signing-date'}
	{@render dateLook()}
{:else if field.kind === 'text'}
	{@render tick('several', 'several lines')}
	<div class="grid grid-cols-2 gap-2">
		{@render whole('least', 'Characters at least', 1, 2000)}
		{@render whole('most', 'at most', 1, 2000)}
	</div>
	{@render whole('boxes', 'Exactly, each in a box of its own', 1, 60)}
	<Choice
		label="Must be"
		value={String(s['pattern'] ?? '')}
		options={[['', 'anything'], ...PATTERNS.map((pattern): [string, string] => [pattern, PATTERN_NAMES[pattern]])]}
		onchoose={(pattern) => set('pattern', pattern)}
	/>
	{#if s['pattern'] === 'postcode' || s['pattern'] === 'phone'}
		<Choice
			label="Country"
			value={String(s['country'] ?? 'GB')}
			options={COUNTRIES.map((code) => [code, countryName(code)])}
			onchoose={(country) => set('country', country)}
		/>
	{:else if s['pattern'] === 'own'}
		<label
			>Pattern <span class="text-quiet">regular expression, for the whole text</span><input
				class="input mt-1 font-mono"
				maxlength="300"
				value={s['own'] ?? ''}
				oninput={(e) => set('own', e.currentTarget.value)}
			/></label
		>
	{/if}
	<p class="wrong empty:hidden">{textSettingsFault(field) ?? ''}</p>
	<label
		>Stands there to begin with<input
			class="input mt-1"
			maxlength="2000"
			value={String(s['default'] ?? '')}
			oninput={(e) => set('default', e.currentTarget.value)}
		/></label
	>
{:else if field.kind === 'number'}
	{@render numberLook()}
	<div class="grid grid-cols-3 gap-2">
		{#each [['least', 'At least'], ['most', 'At most'], ['default', 'Begins as']] as [name, label] (name)}
			<label
				>{label}<input
					class="input mt-1"
					inputmode="decimal"
					value={String(s[name!] ?? '')}
					onchange={(e) => decimal(name!, e.currentTarget)}
				/></label
			>
		{/each}
	</div>
{:else if field.kind === 'date'}
	{@render dateLook()}
	{#each [['least', 'Not before'], ['most', 'Not after']] as const as [name, label] (name)}
		{@const way = boundWay(s[name])}
		<div class="grid gap-1">
			<Choice
				{label}
				value={way}
				options={[
					['none', 'no limit'],
					['day', 'a fixed day'],
					['rule', 'relative to another date']
				]}
				onchoose={(to) => boundTo(name, to)}
			/>
			{#if way === 'day'}<Day
					label="{label} this day"
					unseen
					value={String(s[name] ?? '')}
					onchoose={(day) => day && set(name, day)}
				/>
			{:else if way === 'rule'}<RuleBox
					{bench}
					label="{label}, as add_days(start, 1)"
					source={String(s[name])}
					check={(source) => ruleFault(plan, field, { at: 'bound', source, wants: 'date' })}
					onchange={(rule) => set(name, cutText(rule, 300))}
				/>{/if}
		</div>
	{/each}
{:else if field.kind === 'choice'}
	<label
		>The list <span class="text-quiet">one a line; “value = text” where they differ</span><textarea
			class="input mt-1 min-h-24"
			value={listed}
			onchange={(e) => options(e.currentTarget.value)}></textarea></label
	>
	<Choice
		label="Chosen to begin with"
		value={String(s['default'] ?? '')}
		options={[['', 'nothing'], ...optionsOf(field).map(({ value, text }): [string, string] => [value, text || value])]}
		onchoose={(first) => set('default', first)}
	/>
{:else if field.kind === 'pick-one' || field.kind === 'ticks'}
	<div class="grid grid-cols-2 gap-2">
		<label
			>Value<input
				class="input mt-1 font-mono"
				maxlength="200"
				value={valueOf(field)}
				onchange={(e) => set('value', e.currentTarget.value.trim() || field.id, true)}
			/></label
		>
		<label
			>Its text<input
				class="input mt-1"
				maxlength="200"
				value={textOfButton(field)}
				onchange={(e) => set('text', e.currentTarget.value.trim(), true)}
			/></label
		>
	</div>
	{@render tick('ticked', 'set beforehand', true)}
	{@render tick('outline', 'draw its edge, where the page has none', true)}
	{#if field.kind === 'ticks'}
		<div class="grid grid-cols-2 gap-2">
			{@render whole('least', 'Ticks at least', 0, 500)}
			{@render whole('most', 'at most', 0, 500)}
		</div>
	{/if}
	<p class="text-quiet">
		{question.length === 1 ? 'The only one of its group.' : `One of ${question.length} in its group.`} With it chosen, place
		another to let the group grow.
	</p>
{:else if field.kind === 'attachment'}
	<fieldset>
		<legend>Takes</legend>
		<p class="flex flex-wrap gap-3 pt-1">
			{#each Object.keys(FILE_TYPES) as name (name)}<label class="flex items-center gap-1.5"
					><input
						type="checkbox"
						checked={String(s['types'] ?? name)
							.split(',')
							.includes(name)}
						onchange={(e) => type(name, e.currentTarget.checked)}
					/>{name.toUpperCase()}</label
				>{/each}
		</p>
	</fieldset>
	{@render whole('megabytes', `Megabytes at most (${MOST_MEGABYTES})`, 1, MOST_MEGABYTES)}
{:else if field.kind === 'computed'}
	<RuleBox
		{bench}
		label="Rule"
		source={ruleOfComputed(field)}
		check={(source) => ruleFault(plan, field, { at: 'rule', source })}
		offered={(key) => key !== field.key}
		computes={field}
		onchange={(rule) => set('rule', rule)}
	/>
	{@const gives = keyTypes(plan)[field.key]}
	{#if gives === undefined || gives === 'number'}{@render numberLook()}{/if}
	{#if gives === 'date'}{@render dateLook()}{/if}
{:else if field.kind === 'note'}
	<label
		>What it says<textarea
			class="input mt-1 min-h-24"
			maxlength="4000"
			value={String(s['text'] ?? '')}
			oninput={(e) => set('text', e.currentTarget.value)}></textarea></label
	>
{:else if field.kind === 'image'}
	<label
		>{s['picture'] ? 'Another picture' : 'Picture'}
		<span class="text-quiet">PNG or JPEG; white becomes clear</span><input
			class="mt-1 block w-full"
			type="file"
			accept="image/png,image/jpeg"
			onchange={(e) => picture(e.currentTarget)}
		/></label
	>
{/if}
<p class="wrong empty:hidden" role="alert">{say}</p>
