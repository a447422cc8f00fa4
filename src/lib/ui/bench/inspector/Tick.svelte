<script lang="ts">
	import Check from '../../parts/Check.svelte';
	import type { Settings } from './settings.svelte';

	/** A yes or no among a field's settings. */
	let {
		settings,
		name,
		label,
		own = false
	}: { settings: Settings; name: string; label: string; own?: boolean } = $props();
</script>

<Check {label} checked={settings.get(name) === true} onchange={(on) => settings.set(name, on || undefined, own)} />
