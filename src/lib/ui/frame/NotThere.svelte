<script lang="ts">
	import { page } from '$app/state';

	/** What stands there instead of a page that isn't there, isn't theirs, or broke. */
</script>

<svelte:head><title>Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-xl px-5 py-20">
	<h1 class="pb-3 text-2xl">{page.status === 404 ? 'Not here' : 'This did not work'}</h1>
	<p class="pb-6">{page.error?.message}</p>
	{#if page.error?.request}<p class="pb-6 text-[14px] text-quiet">
			Whoever runs this Pellum finds it in the log by <span class="font-mono">{page.error.request}</span>.
		</p>{/if}
	{#if !page.url.pathname.startsWith('/s/')}<a class="button" href="/desk">To the Desk</a>{/if}
</main>
