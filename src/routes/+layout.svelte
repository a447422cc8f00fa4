<script lang="ts">
	import '../app.css';
	import { page } from '$app/state';
	import { onMount } from 'svelte';
	import TopBar from '$lib/ui/frame/TopBar.svelte';
	import { wantLetters } from '$lib/ui/letters';

	let { data, children } = $props();

	// for whoever drives the page by program: from here on keys and buttons answer
	onMount(() => {
		document.documentElement.dataset['ready'] = 'yes';
	});

	// names and texts may be in any script; the names of languages wait until somebody looks for theirs
	$effect(() => {
		const { languages: _languages, ...shown } = page.data;
		wantLetters(JSON.stringify(shown));
	});

	// the Bench and the signing page have heads of their own
	const framed = $derived(data.account !== null && !/^\/(bench|s)\//.test(page.url.pathname));
</script>

<svelte:document oninput={(event) => wantLetters((event.target as HTMLInputElement).value ?? '')} />
{#if framed && data.account}
	<a href="#main" class="unseen focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-2"
		>Go to the content</a
	>
	<TopBar account={data.account} demo={data.demo} />
{/if}
{@render children()}
