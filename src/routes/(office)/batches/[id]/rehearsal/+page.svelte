<script lang="ts">
	import { goto } from '$app/navigation';
	import { Rehearsal } from '$lib/ui/bench/rehearsal';

	let { data } = $props();
	const id = $derived(`${data.batch}-${data.row}`);
	let open = $state(true);
</script>

<svelte:head><title>Rehearsal of row {data.line} · {data.name} · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<h1 class="text-[19px]">{data.name}, row {data.line}</h1>
	<p class="pt-2"><a class="text-thread underline" href="/batches/{data.batch}">Back to the batch</a></p>
</main>
<Rehearsal
	of={{ ...data, id, flush: () => Promise.resolve(true) }}
	turn={(person) => `/batches/${data.batch}/rehearse?row=${data.row}&person=${encodeURIComponent(person)}`}
	bind:open
	onclose={() => void goto(`/batches/${data.batch}`)}
/>
