<script lang="ts">
	import { Dialog } from '../../parts/dialog';
	import DialogBox from '../../parts/DialogBox.svelte';
	import type { Bench } from '../bench.svelte';

	/** Ends the changing of a template: from now on it is used as it stands here, as its next version. */
	let {
		bench,
		open = $bindable(false),
		ondone
	}: { bench: Bench; open?: boolean; ondone: (template: string) => void } = $props();

	let note = $state('');
	let busy = $state(false);
	let wrong = $state('');

	async function put() {
		busy = true;
		wrong = '';
		const done = await bench.ask<{ template: string }>('in-use', { note });
		busy = false;
		if ('template' in done) ondone(done.template);
		else wrong = done.wrong;
	}
</script>

<DialogBox bind:open onOpenChange={() => (wrong = '')} place="top-16 right-4 w-[440px]">
	<Dialog.Title class="font-serif text-lg font-semibold">Put “{bench.plan.title}” in use</Dialog.Title>
	<Dialog.Description class="pb-3 text-quiet">
		From now on it is used as it stands here. Packets made from earlier versions stay as they are.
	</Dialog.Description>
	<label
		>What is new in it<input
			class="input mt-1"
			maxlength="500"
			placeholder="For the list of versions; may stay empty"
			bind:value={note}
		/></label
	>
	<p class="wrong pt-3 empty:hidden" role="alert">{wrong}</p>
	<p class="flex gap-2 pt-4">
		<button class="button primary" disabled={busy} onclick={put}>{busy ? 'Putting in use…' : 'Put in use'}</button
		><Dialog.Close class="button">Not yet</Dialog.Close>
	</p>
</DialogBox>
