<script lang="ts">
	import type { HTMLInputAttributes } from 'svelte/elements';
	import Asked from './Asked.svelte';

	/** A password that is chosen: as long as the server wants it, and kept by the browser as a new one. */
	let { value = $bindable(''), label, ...rest }: { value?: string; label: string } & HTMLInputAttributes = $props();
</script>

<Asked
	{label}
	name="password"
	type="password"
	autocomplete="new-password"
	minlength={12}
	maxlength={512}
	bind:value
	{...rest}
/>
