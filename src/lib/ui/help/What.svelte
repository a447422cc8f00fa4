<script lang="ts">
	import CircleHelp from '@lucide/svelte/icons/circle-help';
	import Over from '../parts/Over.svelte';
	import { drawn, type Topic } from './topics';

	/** “What is this”, with a worked example: written once, in docs/help, and fetched when somebody asks. */
	let { topic, of }: { topic: Topic; of: string } = $props();
	let open = $state(false);
</script>

<Over label="?" hint="What are {of}?" look="plain inline-flex size-6 items-center justify-center p-0!" wide bind:open>
	{#snippet face()}<CircleHelp size={15} aria-hidden="true" />{/snippet}
	{#if open}
		{#await drawn(topic)}<p class="text-quiet">One moment…</p>
		{:then html}
			<!-- eslint-disable-next-line svelte/no-at-html-tags (our own pages, from docs/help) -->
			<div class="help">{@html html}</div>
		{/await}
	{/if}
</Over>

<style>
	.help :global(h1) {
		font-size: 17px;
		padding-bottom: 6px;
	}
	.help :global(p) {
		padding-bottom: 8px;
		font-size: 14px;
		line-height: 20px;
	}
	.help :global(code) {
		font-family: var(--font-mono);
		background: var(--linen);
		padding: 0 3px;
	}
</style>
