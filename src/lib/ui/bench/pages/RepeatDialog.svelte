<script lang="ts">
	import Check from '../../parts/Check.svelte';
	import { Dialog } from '../../parts/dialog';
	import DialogBox from '../../parts/DialogBox.svelte';
	import { kindOf } from '../../../core/field';
	import type { Bench } from '../bench.svelte';
	import { repeatOn } from '../../../core/plan';

	/** Repeats the chosen fields on pages of their document, in one step. */
	let { bench, open = $bindable(false) }: { bench: Bench; open?: boolean } = $props();

	let pages = $state('all');
	let twins = $state(false);
	let say = $state('');
	const chosen = $derived(bench.plan.fields.filter((f) => bench.fieldIds.includes(f.id)));
	const keyed = $derived(chosen.some((f) => f.key !== '' && !kindOf(f.kind).signs));

	function repeat() {
		const done = repeatOn(bench.plan, bench.fieldIds, pages, twins);
		if (typeof done === 'string') {
			say = done;
			return;
		}
		bench.change(`repeat on ${pages.trim()} pages`, done.plan);
		bench.chooseFields(done.fields);
		open = false;
	}
</script>

<DialogBox bind:open onOpenChange={() => (say = '')} place="top-28 left-1/2 w-[400px] -translate-x-1/2">
	<Dialog.Title class="font-serif text-lg font-semibold">Repeat on pages</Dialog.Title>
	<Dialog.Description class="pt-1 pb-3"
		>{chosen.length === 1 ? 'The chosen field' : `The ${chosen.length} chosen fields`} at the same place of each page.</Dialog.Description
	>
	<form
		class="grid gap-3"
		onsubmit={(e) => {
			e.preventDefault();
			repeat();
		}}
	>
		<label
			>Pages <span class="text-quiet">all, odd, even, or as 3-7, 9</span><input
				class="input mt-1"
				bind:value={pages}
				aria-invalid={say !== ''}
			/></label
		>
		{#if keyed}<Check label="one answer for all: they keep their keys" bind:checked={twins} />{/if}
		<p class="wrong empty:hidden" role="alert">{say}</p>
		<p class="flex gap-2">
			<button class="button primary">Repeat</button><Dialog.Close class="button">Not now</Dialog.Close>
		</p>
	</form>
</DialogBox>
