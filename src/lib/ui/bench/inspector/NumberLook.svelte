<script lang="ts">
	import { CURRENCIES } from '../../../core/field';
	import Choice from '../../parts/Choice.svelte';
	import type { Settings } from './settings.svelte';
	import Whole from './Whole.svelte';

	/** How a number is written. */
	let { settings }: { settings: Settings } = $props();
</script>

<div class="grid grid-cols-2 gap-2">
	<Whole {settings} name="decimals" label="Decimals" least={0} most={6} />
	<Choice
		label="Currency"
		value={settings.text('currency')}
		options={[['', 'none'], ...CURRENCIES.map((code): [string, string] => [code, code])]}
		onchoose={(code) => settings.set('currency', code)}
	/>
</div>
{#if settings.get('currency')}
	<Choice
		label="Written"
		value={settings.text('money', 'symbol')}
		options={[
			['symbol', 'with its sign'],
			['code', 'with its code']
		]}
		onchoose={(money) => settings.set('money', money)}
	/>
{/if}
