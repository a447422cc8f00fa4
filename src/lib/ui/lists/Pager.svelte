<script lang="ts">
	/** The ways to the rows before and after those that are shown. */
	let {
		offset,
		shown,
		page,
		to,
		before = 'Earlier rows',
		after = 'Further rows'
	}: {
		offset: number;
		/** how many rows there are here, and how many a page has */
		shown: number;
		page: number;
		/** the address of the rows from a place on */
		to: (from: number) => string;
		before?: string;
		after?: string;
	} = $props();
</script>

<p class="flex gap-3 pt-3">
	{#if offset > 0}<a class="button" href={to(Math.max(0, offset - page))}>{before}</a>{/if}
	{#if shown === page}<a class="button" href={to(offset + page)}>{after}</a>{/if}
</p>
