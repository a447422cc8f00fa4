<script lang="ts">
	import Holidays from '$lib/ui/settings/Holidays.svelte';

	let { data, form } = $props();
	const said = $derived((form ?? {}) as Record<string, string | boolean | undefined>);
</script>

<svelte:head><title>Public holidays · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<div class="max-w-xl"><Holidays days={data.holidays} owner={data.me.level === 'owner'} {said} /></div>
</main>
