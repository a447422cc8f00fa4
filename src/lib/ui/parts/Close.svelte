<script lang="ts">
	import { Dialog } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** Closes the dialog it stands in, and does nothing else: within a form a button without a type would send it. */
	let { class: look = '', children }: { class?: string; children: Snippet } = $props();
</script>

<Dialog.Close type="button" class={look}>{@render children()}</Dialog.Close>
