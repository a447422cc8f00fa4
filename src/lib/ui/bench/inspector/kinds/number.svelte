<script lang="ts">
	import NumberLook from '../NumberLook.svelte';
	import type { Settings } from '../settings.svelte';

	/** How a number is written, and between which it lies. */
	let { settings }: { settings: Settings } = $props();
</script>

<NumberLook {settings} />
<div class="grid grid-cols-3 gap-2">
	{#each [['least', 'At least'], ['most', 'At most'], ['default', 'Begins as']] as const as [name, label] (name)}
		<label
			>{label}<input
				class="input mt-1"
				inputmode="decimal"
				value={settings.text(name)}
				onchange={(e) => settings.decimal(name, e.currentTarget)}
			/></label
		>
	{/each}
</div>
