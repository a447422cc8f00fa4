<script lang="ts">
	import Told from '$lib/ui/parts/Told.svelte';
	import KeysOf from '$lib/ui/help/KeysOf.svelte';
	import TopBar from '$lib/ui/frame/TopBar.svelte';

	/** The office's own pages have its bar; the Bench and the signing page have heads of their own, and never fetch it. */
	let { data, children } = $props();
</script>

{#if data.account}
	<a href="#main" class="unseen focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2"
		>Go to the content</a
	>
	<TopBar account={data.account} demo={data.demo} />
{/if}
{@render children()}
<KeysOf />
<Told />
