<script lang="ts">
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { Pagination } from 'bits-ui';

	/** Leafs through pages, of which one is seen. */
	let { of, page = $bindable(1) }: { of: number; page?: number } = $props();
</script>

<Pagination.Root count={of} perPage={1} bind:page aria-label="Pages" class="flex items-center gap-1">
	<Pagination.PrevButton class="plain" aria-label="The page before"
		><ChevronLeft size={16} aria-hidden="true" /></Pagination.PrevButton
	>
	<span class="text-[13px] whitespace-nowrap text-quiet" aria-live="polite">{page} of {of}</span>
	<Pagination.NextButton class="plain" aria-label="The next page"
		><ChevronRight size={16} aria-hidden="true" /></Pagination.NextButton
	>
</Pagination.Root>
