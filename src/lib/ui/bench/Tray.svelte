<script lang="ts">
	import { KINDS } from '../../core/field';
	import type { Bench } from './bench.svelte';

	/** The kinds of field as keys of one row: press the letter or the key, then the page, again and again until Esc. */
	let { bench }: { bench: Bench } = $props();

	const owner = $derived(bench.plan.people.find((p) => p.id === bench.person));
	// the kinds used most in this plan stand first
	const kinds = $derived(
		KINDS.map((kind, i) => ({ kind, i, used: bench.plan.fields.filter((f) => f.kind === kind.kind).length })).sort(
			(a, b) => b.used - a.used || a.i - b.i
		)
	);
</script>

<section aria-label="Tray" class="flex h-full items-center gap-2 px-[18px]">
	<p class="w-28 text-[14px] leading-[18px] text-quiet">
		{#if bench.placing}Click the page, or press Enter. Esc ends it.{:else if owner}For <b class="text-ink"
				>{owner.name || 'the one chosen'}</b
			>, press a letter{:else}Add somebody, then press a letter{/if}
	</p>
	<div class="flex gap-2" role="toolbar" aria-label="Kinds of field">
		{#each kinds as { kind } (kind.kind)}
			<button
				class="h-[42px] min-w-[70px] rounded-sm border px-2 text-center leading-[18px] {bench.placing === kind.kind
					? 'border-2 border-thread bg-wash'
					: 'border-hairline hover:border-thread'}"
				aria-pressed={bench.placing === kind.kind}
				aria-keyshortcuts={kind.letter}
				disabled={bench.plan.papers.length === 0}
				onclick={() => (bench.placing = bench.placing === kind.kind ? null : kind.kind)}
			>
				<kbd class="block font-sans text-[14px] font-semibold text-thread">{kind.letter}</kbd>
				<span class="block text-[14px]">{kind.name}</span>
			</button>
		{/each}
	</div>
	<p class="ml-auto text-right text-[13px] leading-[18px] text-quiet">
		Arrows move 1 pt, with Shift 10<br />Ctrl Z undoes · Del removes · <kbd class="font-mono">?</kbd> all keys
	</p>
</section>
