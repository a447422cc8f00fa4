<script lang="ts">
	import { findAcross, withoutChange, withStruck, type Struck } from '../../../core/amend';
	import { freshId } from '../../../core/plan';
	import Check from '../../parts/Check.svelte';
	import type { Bench } from '../bench.svelte';

	/** Words are found or marked on the pages, struck, and others stand instead; beside each the parties’ initials. */
	let { bench, ongo, onclose }: { bench: Bench; ongo: (key: string) => void; onclose: () => void } = $props();

	let words = $state('');
	let instead = $state('');
	let read = $state(0);
	/** those that are not meant */
	let without = $state.raw<string[]>([]);
	let input: HTMLInputElement;
	const amends = $derived(bench.plan.amends!);

	$effect(() => {
		input.focus();
		bench.readings.loadAll(bench.plan.papers, () => (read += 1));
		return () => (bench.marking = null);
	});
	/** on the pages that are changed, not on the page that tells of it */
	const hits = $derived.by((): (Struck & { key: string })[] => {
		void read;
		return bench.plan.papers
			.filter((paper) => paper.id !== amends.summary)
			.flatMap((paper) =>
				paper.pages.flatMap((_, page) => {
					const shown = bench.readings.page(paper, page);
					return (shown ? findAcross(shown, words) : []).map((found, i) => ({
						paper: paper.id,
						page,
						found,
						key: `${paper.id} ${page} ${i}`
					}));
				})
			);
	});
	const meant = $derived(hits.filter((hit) => !without.includes(hit.key)));

	function mark() {
		bench.missed = false;
		bench.marking = (marked, paper, page) => {
			words = marked;
			bench.marking = null;
			// only there, of all the places that have these words
			without = hits.filter((hit) => hit.paper !== paper || hit.page !== page).map((hit) => hit.key);
		};
	}

	function strike() {
		const next = withStruck(
			bench.plan,
			meant,
			instead.trim(),
			(paper, page) => bench.readings.page(paper, page),
			() => freshId('c')
		);
		bench.change(`strike “${words.trim().slice(0, 40)}”`, next);
		[words, instead, without] = ['', '', []];
		input.focus();
	}
</script>

<section
	aria-label="Strike words"
	class="absolute top-3 right-3.5 z-20 grid max-h-[calc(100%-24px)] w-96 gap-2 overflow-y-auto rounded-sm border border-hairline bg-sheet p-3 text-[14px] shadow-(--float)"
>
	<div class="flex items-baseline justify-between">
		<h2 class="text-[16px]">Strike words</h2>
		<button class="plain" aria-label="Close the changes" onclick={onclose}>Close</button>
	</div>
	<form
		class="grid gap-2"
		onsubmit={(event) => {
			event.preventDefault();
			if (meant.length > 0) strike();
		}}
	>
		<label class="grid gap-1"
			>Which words<input
				bind:this={input}
				class="input"
				maxlength="400"
				bind:value={words}
				oninput={() => (without = [])}
			/></label
		>
		<p class="flex items-center gap-2">
			<button type="button" class="button" aria-pressed={bench.marking !== null} onclick={mark}
				>{bench.marking ? 'Drag over them on the page…' : 'Mark them on the page'}</button
			>
			<span role="status" class="text-quiet"
				>{bench.marking && bench.missed
					? 'No words stand there. Drag over some others.'
					: words.trim() === ''
						? ''
						: hits.length === 0
							? 'Not on these pages.'
							: hits.length === 1
								? 'In one place.'
								: `In ${hits.length} places.`}</span
			>
		</p>
		{#if hits.length > 0}
			<ul class="grid max-h-44 gap-1 overflow-y-auto" tabindex="-1">
				{#each hits as hit (hit.key)}
					<li>
						<Check
							label="Page {hit.page + 1}: …{hit.found.before}{hit.found.words}{hit.found.after}…"
							checked={!without.includes(hit.key)}
							onchange={(on) => (without = on ? without.filter((key) => key !== hit.key) : [...without, hit.key])}
						/>
					</li>
				{/each}
			</ul>
		{/if}
		<label class="grid gap-1"
			>What stands instead <span class="text-quiet">empty: they only fall away</span><input
				class="input"
				maxlength="1000"
				bind:value={instead}
			/></label
		>
		<p>
			<button class="button primary" disabled={meant.length === 0}
				>{meant.length === 0
					? 'Strike'
					: meant.length === 1
						? 'Strike them there'
						: `Strike them in ${meant.length} places`}</button
			>
		</p>
	</form>
	{#if amends.changes.length > 0}
		<h3 class="border-t border-hairline pt-2 text-[14px] font-semibold">What is struck</h3>
		<ol class="grid gap-1.5">
			{#each amends.changes as change, i (change.id)}
				<li class="flex items-baseline gap-2">
					<button
						type="button"
						class="min-w-0 flex-1 cursor-pointer text-left wrap-anywhere"
						onclick={() => ongo(`${change.paper}-${change.page}`)}
						>({i + 1}) page {change.page + 1}: <s>{change.words}</s>
						{change.instead}{change.how === 'note' ? ' (on the page of changes)' : ''}</button
					>
					<button
						type="button"
						class="plain"
						aria-label="Take change {i + 1} back"
						onclick={() => bench.change('take a change back', withoutChange(bench.plan, change.id))}>Take back</button
					>
				</li>
			{/each}
		</ol>
	{/if}
</section>
