<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import LookAt from '$lib/ui/paper/LookAt.svelte';

	let { data, form } = $props();
	const look = $derived(data.look);
	$effect(() => keepCurrent((id) => id === look.packet));
	// how far the machine is
	$effect(() => {
		if (look.is !== 'looking') return;
		const timer = setInterval(() => void invalidateAll(), 2000);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>{look.person.name}: on paper · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-7xl px-6 py-5">
	<p class="text-[14px]">
		<a class="text-thread underline" href="/packets/{look.packet}">{look.title}</a>
		<span class="font-mono text-quiet">{look.reference}</span>
	</p>
	<h1 class="pb-3 text-xl">What {look.person.name} signs on paper</h1>
	<LookAt {look} {form} />
</main>
