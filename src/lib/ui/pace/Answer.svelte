<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Table } from '../../core/pace';
	import More from '../parts/More.svelte';

	/** One question of Pace: what is said to it, drawn, as a table, and as a file. */
	let {
		question,
		said,
		table,
		file,
		wide = false,
		children
	}: {
		question: string;
		said: string[];
		table: Table;
		/** where the table is fetched as a file */
		file: string;
		/** across both columns */
		wide?: boolean;
		/** the drawing; none where nothing can be drawn */
		children?: Snippet;
	} = $props();
	const uid = $props.id();
</script>

<section aria-labelledby={uid} class="min-w-0 border-t border-hairline py-3 {wide ? 'min-[900px]:col-span-2' : ''}">
	<h2 id={uid} class="pb-1 font-serif text-[17px]">{question}</h2>
	{#each said as one, i (i)}<p class={i === 0 ? '' : 'text-quiet'}>{one}</p>{/each}
	{#if children}<div class="pt-2">{@render children()}</div>{/if}
	{#if table.rows.length > 0}
		<More label="As a table">
			<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, so the keyboard has to reach it) -->
			<div class="max-h-80 overflow-auto" role="region" aria-label="{question} As a table" tabindex="0">
				<table class="list">
					<thead
						><tr
							>{#each table.columns as column (column)}<th>{column}</th>{/each}</tr
						></thead
					>
					<tbody>
						{#each table.rows as row, i (i)}<tr
								>{#each row as cell, c (c)}<td>{cell}</td>{/each}</tr
							>{/each}
					</tbody>
				</table>
			</div>
			<a class="inline-block pt-2" href={file} download>Take it away as CSV</a>
		</More>
	{/if}
</section>
