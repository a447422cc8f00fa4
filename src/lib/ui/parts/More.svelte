<script lang="ts">
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { Collapsible } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** A word that opens what most people needn't read. */
	let {
		label = 'more',
		of,
		look = 'text-[13px] text-quiet underline',
		open = $bindable(false),
		children
	}: {
		label?: string;
		/** of what it is more, for who can't see what stands beside it */
		of?: string;
		look?: string;
		open?: boolean;
		children: Snippet;
	} = $props();
</script>

<Collapsible.Root bind:open>
	<Collapsible.Trigger class="inline-flex min-h-[24px] cursor-pointer items-center gap-1 {look}">
		<ChevronRight
			size={14}
			aria-hidden="true"
			class="transition-transform motion-reduce:transition-none {open ? 'rotate-90' : ''}"
		/>
		{label}{#if of}<span class="unseen">: {of}</span>{/if}
	</Collapsible.Trigger>
	<Collapsible.Content
		>{#if open}{@render children()}{/if}</Collapsible.Content
	>
</Collapsible.Root>
