<script lang="ts">
	import type { Adding } from './adding.svelte';
	import type { Bench } from './bench.svelte';
	import LooksLike from './LooksLike.svelte';

	/** What has to be said about saving, a change that was refused, and what was added. */
	let { bench, adding, onreload }: { bench: Bench; adding: Adding; onreload: () => void } = $props();
</script>

{#if bench.saving.is === 'elsewhere'}
	<div role="alert" class="rounded-sm border border-copper bg-sheet p-3 shadow-(--float)">
		<p>{bench.saving.say}</p>
		<p class="flex gap-2 pt-2">
			<button class="button" onclick={() => void bench.keepMine()}>Keep what I have here</button><button
				class="button"
				onclick={onreload}>Take the other one</button
			>
		</p>
	</div>
{:else if bench.saving.is === 'failed'}
	<p role="alert" class="rounded-sm border border-brick bg-sheet p-3 shadow-(--float)">{bench.saving.say}</p>
{/if}
{#if bench.refused}
	<p role="alert" class="rounded-sm border border-copper bg-sheet p-3 shadow-(--float)">{bench.refused}</p>
{/if}
{#if adding.looksLike}<LooksLike {adding} like={adding.looksLike} />{/if}
{#each adding.notes as note, i (i)}
	<p
		role={note.bad ? 'alert' : 'status'}
		class="flex items-start gap-3 rounded-sm border bg-sheet p-3 shadow-(--float) {note.bad
			? 'border-brick'
			: 'border-hairline'}"
	>
		<span class="flex-1">{note.say}</span><button
			class="plain"
			aria-label="Put this note away"
			onclick={() => (adding.notes = adding.notes.filter((n) => n !== note))}>Close</button
		>
	</p>
{/each}
