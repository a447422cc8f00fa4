<script lang="ts">
	import type { Settings } from '../settings.svelte';

	/** The words of a note. */
	let { settings }: { settings: Settings } = $props();
</script>

<label
	>What it says<textarea
		class="input mt-1 min-h-24"
		maxlength="4000"
		value={settings.text('text')}
		oninput={(e) => settings.set('text', e.currentTarget.value)}></textarea></label
>
