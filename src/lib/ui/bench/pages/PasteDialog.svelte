<script lang="ts">
	import Choice from '../../parts/Choice.svelte';
	import { Dialog } from '../../parts/dialog';
	import DialogBox from '../../parts/DialogBox.svelte';
	import type { Bench } from '../bench.svelte';
	import { personChoices } from '../person-choices';
	import { pasteBlock, peopleHere, type Block } from '../../../core/plan';

	/** Fields from another packet whose people are not here: asks whose each is to be, then places them. */
	let {
		bench,
		block,
		to,
		onclose
	}: { bench: Bench; block: Block | null; to: { paper: string; page: number } | null; onclose: () => void } = $props();

	const here = $derived(block ? peopleHere(bench.plan, block) : { known: {}, unknown: [] });
	let who = $state<Record<string, string>>({});

	function paste() {
		if (!block) return;
		const asked = Object.fromEntries(here.unknown.map((p) => [p.id, who[p.id] || null]));
		const pasted = pasteBlock(bench.plan, block, to, { ...here.known, ...asked });
		bench.change(`paste ${pasted.fields.length} fields`, pasted.plan);
		bench.chooseFields(pasted.fields);
		onclose();
	}
</script>

<DialogBox
	open={block !== null}
	onOpenChange={(open) => !open && onclose()}
	place="top-28 left-1/2 w-[420px] -translate-x-1/2"
>
	<Dialog.Title class="font-serif text-lg font-semibold">Whose are these fields here?</Dialog.Title>
	<Dialog.Description class="pt-1 pb-3"
		>They belonged to people who are not in this packet. Nothing is placed before you say.</Dialog.Description
	>
	<div class="grid gap-3">
		{#each here.unknown as person (person.id)}
			<Choice
				label="What was {person.name || person.email || 'somebody’s without a name'}’s"
				value={who[person.id] ?? ''}
				options={[['', 'nobody’s yet'], ...personChoices(bench.actors)]}
				onchoose={(id) => (who[person.id] = id)}
			/>
		{/each}
	</div>
	<p class="flex gap-2 pt-4">
		<button class="button primary" onclick={paste}>Place them</button><Dialog.Close class="button"
			>Leave it</Dialog.Close
		>
	</p>
</DialogBox>
