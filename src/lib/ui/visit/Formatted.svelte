<script lang="ts">
	/** A text of the office's as the server has made it HTML: what would be HTML in it stands there as it was typed. */
	let { html }: { html: string } = $props();
</script>

{#if html}
	<div class="formatted pb-3" dir="auto">
		<!-- eslint-disable-next-line svelte/no-at-html-tags (server/intakes/formatted.ts has made it) -->
		{@html html}
	</div>
{/if}

<style>
	.formatted :global(p) {
		padding-block-end: 0.5rem;
	}
	.formatted :global(ul) {
		list-style: disc;
		padding-inline-start: 1.25rem;
	}
	.formatted :global(ol) {
		list-style: decimal;
		padding-inline-start: 1.25rem;
	}
	.formatted :global(a) {
		color: var(--thread);
		text-decoration: underline;
	}
</style>
