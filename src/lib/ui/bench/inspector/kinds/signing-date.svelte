<script lang="ts">
	import DateLook from '../DateLook.svelte';
	import type { Settings } from '../settings.svelte';

	/** How the day of signing is written. */
	let { settings }: { settings: Settings } = $props();
</script>

<DateLook {settings} />
