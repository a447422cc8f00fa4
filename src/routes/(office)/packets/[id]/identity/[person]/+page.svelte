<script lang="ts">
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import LookAt from '$lib/ui/identity/LookAt.svelte';

	let { data, form } = $props();
	const look = $derived(data.look);
	$effect(() => keepCurrent((id) => id === look.packet));
</script>

<svelte:head><title>{look.person.name}: who they are · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-6xl px-6 py-5">
	<p class="text-[14px]">
		<a class="text-thread underline" href="/packets/{look.packet}">{look.title}</a>
		<span class="font-mono text-quiet">{look.reference}</span>
	</p>
	<h1 class="pb-4 text-xl">Whether this is {look.person.name}</h1>
	<LookAt {look} {form} />
</main>
