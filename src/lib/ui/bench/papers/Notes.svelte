<script lang="ts">
	import type { Adding } from './adding.svelte';
	import type { Bench } from '../bench.svelte';
	import LooksLike from './LooksLike.svelte';
	import type { Scanning } from './scanning.svelte';
	import { progressSaid } from './taking';

	/** What has to be said about saving, a change that was refused, and what was added. */
	let {
		bench,
		adding,
		scanning,
		onreload
	}: { bench: Bench; adding: Adding; scanning: Scanning; onreload: () => void } = $props();
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
{#if adding.busy}
	<p role="status" class="flex items-center gap-3 rounded-sm border border-hairline bg-sheet p-3 shadow-(--float)">
		<span class="flex-1"><b>{adding.busy}</b>: {progressSaid(adding.progress)}</span>
		{#if adding.progress.is === 'page'}<progress
				class="w-24"
				max={adding.progress.of}
				value={adding.progress.page}
				aria-label="How far {adding.busy} is"
			></progress>{/if}
		<button class="plain" onclick={() => adding.cancel()}>Call it off</button>
	</p>
{/if}
{#each scanning.underWay as { paper, done, pages } (paper.digest)}
	<p role="status" class="flex items-center gap-3 rounded-sm border border-hairline bg-sheet p-3 shadow-(--float)">
		<span class="flex-1"
			>A machine reads the pictures in “{paper.name}”: page {Math.min(done + 1, pages.length)} of {pages.length}. You
			can go on meanwhile.</span
		>{#if pages.length > 1}<progress
				class="w-24"
				max={pages.length}
				value={done}
				aria-label="How far the reading of {paper.name} is"
			></progress>{/if}
	</p>
{/each}
{#each adding.notes as note, i (i)}
	<p
		role={note.bad ? 'alert' : 'status'}
		class="flex items-start gap-3 rounded-sm border bg-sheet p-3 shadow-(--float) {note.bad
			? 'border-brick'
			: 'border-hairline'}"
	>
		<span class="flex-1"
			>{note.say}{#if note.ways}<span class="flex gap-2 pt-2"
					>{#each note.ways as way (way.say)}<button
							class="button"
							onclick={() => {
								adding.notes = adding.notes.filter((n) => n !== note);
								way.go();
							}}>{way.say}</button
						>{/each}</span
				>{/if}</span
		><button
			class="plain"
			aria-label="Put this note away"
			onclick={() => (adding.notes = adding.notes.filter((n) => n !== note))}>Close</button
		>
	</p>
{/each}
