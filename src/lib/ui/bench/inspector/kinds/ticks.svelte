<script lang="ts">
	import Button from '../Button.svelte';
	import type { Settings } from '../settings.svelte';
	import Whole from '../Whole.svelte';

	/** One box of a group, and how many of it must be ticked. */
	let { settings }: { settings: Settings } = $props();
</script>

<Button {settings}>
	<div class="grid grid-cols-2 gap-2">
		<Whole {settings} name="least" label="Ticks at least" least={0} most={500} />
		<Whole {settings} name="most" label="at most" least={0} most={500} />
	</div>
</Button>
