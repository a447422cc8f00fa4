<script lang="ts">
	import type { Settings } from './settings.svelte';

	/** A whole number among a field's settings, or none. */
	let {
		settings,
		name,
		label,
		least,
		most
	}: { settings: Settings; name: string; label: string; least: number; most: number } = $props();
</script>

<label
	>{label}<input
		class="input mt-1"
		type="number"
		min={least}
		max={most}
		value={settings.get(name) ?? ''}
		onchange={(e) => settings.count(name, e.currentTarget, least, most)}
	/></label
>
