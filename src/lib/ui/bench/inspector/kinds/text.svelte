<script lang="ts">
	import { COUNTRIES, countryName, PATTERNS, textSettingsFault } from '../../../../core/field';
	import Choice from '../../../parts/Choice.svelte';
	import Tick from '../Tick.svelte';
	import Whole from '../Whole.svelte';
	import type { Settings } from '../settings.svelte';

	/** What may be typed, and how much of it. */
	let { settings }: { settings: Settings } = $props();

	const PATTERN_NAMES: Record<(typeof PATTERNS)[number], string> = {
		digits: 'digits only',
		letters: 'letters only',
		postcode: 'a postcode',
		phone: 'a phone number',
		iban: 'an IBAN, with its check digits',
		own: 'a pattern of my own'
	};
	const field = $derived(settings.field);
</script>

<Tick {settings} name="several" label="several lines" />
<div class="grid grid-cols-2 gap-2">
	<Whole {settings} name="least" label="Characters at least" least={1} most={2000} />
	<Whole {settings} name="most" label="at most" least={1} most={2000} />
</div>
<Whole {settings} name="boxes" label="Exactly, each in a box of its own" least={1} most={60} />
<Choice
	label="Must be"
	value={settings.text('pattern')}
	options={[['', 'anything'], ...PATTERNS.map((pattern): [string, string] => [pattern, PATTERN_NAMES[pattern]])]}
	onchoose={(pattern) => settings.set('pattern', pattern)}
/>
{#if settings.get('pattern') === 'postcode' || settings.get('pattern') === 'phone'}
	<Choice
		label="Country"
		value={settings.text('country', 'GB')}
		options={COUNTRIES.map((code) => [code, countryName(code)])}
		onchoose={(country) => settings.set('country', country)}
	/>
{:else if settings.get('pattern') === 'own'}
	<label
		>Pattern <span class="text-quiet">regular expression, for the whole text</span><input
			class="input mt-1 font-mono"
			maxlength="300"
			value={settings.text('own')}
			oninput={(e) => settings.set('own', e.currentTarget.value)}
		/></label
	>
{/if}
<p class="wrong empty:hidden">{textSettingsFault(field) ?? ''}</p>
<label
	>Stands there to begin with<input
		class="input mt-1"
		maxlength="2000"
		value={settings.text('default')}
		oninput={(e) => settings.set('default', e.currentTarget.value)}
	/></label
>
