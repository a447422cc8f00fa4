<script lang="ts">
	import Choice from '../../parts/Choice.svelte';
	import { KINDS, kindOf } from '../../../core/field';
	import type { KindName } from '../../../core/packet';
	import { findText } from '../../../core/page';
	import type { Bench } from '../bench.svelte';
	import { BESIDE, placeAtHits, type Beside } from '../../../core/plan';

	/** Finds a text on all pages, and can place a field at each find. */
	let { bench, ongo, onclose }: { bench: Bench; ongo: (key: string) => void; onclose: () => void } = $props();

	let text = $state('');
	let kind = $state<KindName>('initials');
	let beside = $state<Beside>('right of it');
	let at = $state(-1);
	let read = $state(0);
	let input: HTMLInputElement;

	$effect(() => {
		input.focus();
		bench.readings.loadAll(bench.plan.papers, () => (read += 1));
	});
	const hits = $derived.by(() => {
		void read;
		return bench.plan.papers.flatMap((paper) =>
			paper.pages.flatMap((_, page) => {
				const shown = bench.readings.page(paper, page);
				return shown ? findText(shown, text).map((hit) => ({ paper: paper.id, page, ...hit })) : [];
			})
		);
	});

	function go(step: number) {
		if (hits.length === 0) return;
		at = (at + step + hits.length) % hits.length;
		ongo(`${hits[at]!.paper}-${hits[at]!.page}`);
	}
	function place() {
		const placed = placeAtHits(bench.plan, hits, kind, bench.person, beside);
		bench.change(`place ${kindOf(kind).name} at ${hits.length} finds`, placed.plan);
		bench.chooseFields(placed.fields);
		onclose();
	}
</script>

<section
	aria-label="Find on the pages"
	class="absolute top-3 right-3.5 z-20 grid w-80 gap-2 rounded-sm border border-hairline bg-sheet p-3 text-[14px] shadow-(--float)"
>
	<div class="flex gap-2">
		<input
			bind:this={input}
			class="input"
			type="search"
			aria-label="Text to find"
			placeholder="Find on the pages"
			bind:value={text}
			oninput={() => (at = -1)}
			onkeydown={(e) => {
				if (e.key === 'Enter') go(e.shiftKey ? -1 : 1);
				else if (e.key === 'Escape') onclose();
				else return;
				e.preventDefault();
				e.stopPropagation();
			}}
		/>
		<button class="plain" aria-label="Close the search" onclick={onclose}>Close</button>
	</div>
	<p role="status" class="text-quiet">
		{text.trim() === ''
			? 'Enter goes from one find to the next.'
			: hits.length === 0
				? 'Not on these pages.'
				: `${hits.length} ${hits.length === 1 ? 'find' : 'finds'}${at >= 0 ? `, at ${at + 1}: ${hits[at]!.around.slice(0, 70)}` : ''}`}
	</p>
	{#if hits.length > 0}
		<div class="flex items-center gap-1.5 border-t border-hairline pt-2">
			<Choice
				label="Kind to place"
				unseen
				value={kind}
				options={KINDS.map((one) => [one.kind, one.name])}
				onchoose={(one) => (kind = one as typeof kind)}
			/>
			<Choice
				label="Where to place it"
				unseen
				value={beside}
				options={BESIDE.map((one) => [one, one])}
				onchoose={(one) => (beside = one as typeof beside)}
			/>
		</div>
		<button class="button" onclick={place}>Place at {hits.length === 1 ? 'it' : `all ${hits.length}`}</button>
	{/if}
</section>
