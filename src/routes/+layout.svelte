<script lang="ts">
	import '../app.css';
	import { page } from '$app/state';
	import { onMount } from 'svelte';
	import { holdTheWay } from '$lib/ui/frame/way';
	import { wantLetters } from '$lib/ui/letters';

	let { children } = $props();
	holdTheWay();

	// for whoever drives the page by program: from here on keys and buttons answer
	onMount(() => {
		document.documentElement.dataset['ready'] = 'yes';
	});

	// names and texts may be in any script; the names of languages wait until somebody looks for theirs
	$effect(() => {
		const { languages: _languages, ...shown } = page.data;
		wantLetters(JSON.stringify(shown));
	});
</script>

<svelte:document oninput={(event) => wantLetters((event.target as HTMLInputElement).value ?? '')} />
{@render children()}
