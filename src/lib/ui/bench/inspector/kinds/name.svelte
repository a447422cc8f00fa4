<script lang="ts">
	import Choice from '../../../parts/Choice.svelte';
	import type { Settings } from '../settings.svelte';

	/** Which part of a name. */
	let { settings }: { settings: Settings } = $props();
</script>

<Choice
	label="Which part"
	value={settings.text('part', 'full')}
	options={[
		['full', 'in full'],
		['given', 'given name'],
		['family', 'family name']
	]}
	onchoose={(part) => settings.set('part', part)}
/>
