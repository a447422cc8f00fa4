<script lang="ts">
	import Button from '../Button.svelte';
	import type { Settings } from '../settings.svelte';

	/** One button of which one is picked. */
	let { settings }: { settings: Settings } = $props();
</script>

<Button {settings} />
