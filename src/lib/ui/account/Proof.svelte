<script lang="ts">
	import { page } from '$app/state';

	/** Says that what stands here wants a proof, and leads to where it is given. */
	let { what }: { what: string } = $props();
</script>

<p class="mt-4 flex flex-wrap items-center gap-3 border-l-4 border-thread bg-linen px-3 py-2">
	<span class="min-w-0 flex-1">{what}</span>
	<a class="button" href="/prove?to={page.url.pathname}">Show that it’s you</a>
</p>
