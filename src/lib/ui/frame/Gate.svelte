<script lang="ts">
	import type { Snippet } from 'svelte';

	/** The page of somebody who is not in yet: a narrow sheet with one thing to do. */
	let {
		title,
		lead = '',
		wide = false,
		children
	}: { title: string; lead?: string; wide?: boolean; children: Snippet } = $props();
</script>

<svelte:head><title>{title} · Pellum</title></svelte:head>
<main id="main" class="grid min-h-dvh place-items-center bg-linen p-5">
	<div class="w-full {wide ? 'max-w-md' : 'max-w-sm'} rounded-sm border border-hairline bg-sheet p-8">
		<svg width="90" height="16" aria-hidden="true" class="mb-4">
			<line x1="8" x2="76" y1="8" y2="8" stroke="var(--thread)" stroke-width="2" />
			<circle cx="8" cy="8" r="6" fill="var(--thread)" /><circle
				cx="80"
				cy="8"
				r="6"
				fill="var(--sheet)"
				stroke="var(--thread)"
				stroke-width="2.5"
			/>
		</svg>
		<h1 class="text-2xl leading-8">{title}</h1>
		<p class="pt-1 pb-5 text-quiet">{lead}</p>
		{@render children()}
	</div>
</main>
