<script lang="ts">
	import Description from '$lib/ui/programs/Description.svelte';
</script>

<svelte:head><title>The API · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-6xl px-6 py-5">
	<h1 class="pb-2 text-[19px]">The API</h1>
	<p class="pb-4">
		As <a class="text-thread underline" href="/api/v1/openapi.json">OpenAPI 3.1</a> for programs; here to be read.
		<a class="text-thread underline" href="/account/programs">Keys are made under your account.</a>
	</p>
	<Description address="/api/v1/openapi.json" />
</main>
