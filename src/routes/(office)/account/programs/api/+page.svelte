<script lang="ts">
	import Description from '$lib/ui/programs/Description.svelte';

	let { data } = $props();
</script>

<svelte:head><title>The API · Pellum</title></svelte:head>
<div id="main" class="mx-auto max-w-6xl px-6 py-5">
	<section aria-labelledby="api">
		<h1 id="api" class="pb-2 text-[19px]">The API</h1>
		<p>
			As <a class="text-thread underline" href="/api/v1/openapi.json">OpenAPI 3.1</a> for programs; here to be read.
			<a class="text-thread underline" href="/account/programs">Keys are made under your account.</a>
		</p>
		<p class="pt-2 pb-4">
			A key may {#each data.rights as [right, says], i (right)}{i > 0 ? '; ' : ''}<b>{right}</b>: {says}{/each}. Times
			are ISO 8601 in UTC, ids as in the addresses of pages. What changes something takes an Idempotency-Key, under
			which the same asked again is done once. Lists come in pages: ask on with
			<code class="font-mono text-[14px]">next</code>
			as <code class="font-mono text-[14px]">after</code>.
		</p>
	</section>
	<Description address="/api/v1/openapi.json" />
</div>
