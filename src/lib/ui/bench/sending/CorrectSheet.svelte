<script lang="ts">
	import { Dialog } from '../../parts/dialog';
	import DialogBox from '../../parts/DialogBox.svelte';
	import type { Bench } from '../bench.svelte';
	import type { Correcting } from '../../../core/packet';
	import { saidOf } from '../correcting';

	/** What the correction changes, what comes of it for whom, and the button that sends it. */
	let {
		bench,
		correcting,
		open = $bindable(false),
		ondone
	}: { bench: Bench; correcting: Correcting; open?: boolean; ondone: () => void } = $props();

	let busy = $state(false);
	let wrong = $state('');
	const said = $derived(open ? saidOf(correcting, bench.plan) : []);

	async function send() {
		busy = true;
		const done = await bench.ask<{ packet: string }>('correction', { do: 'send' });
		busy = false;
		wrong = 'wrong' in done ? done.wrong : '';
		if ('packet' in done) ondone();
	}
</script>

<DialogBox bind:open onOpenChange={() => (wrong = '')} place="top-16 right-4 max-h-[85dvh] w-[460px] overflow-y-auto">
	<Dialog.Title class="font-serif text-lg font-semibold">Put {correcting.reference} right</Dialog.Title>
	<Dialog.Description class="pb-3 text-quiet">
		{said.length === 0 ? 'Nothing is different so far.' : 'This is what will be different. The record says so as well.'}
	</Dialog.Description>
	<ul class="list-disc pl-5">
		{#each said as line (line)}<li class="pb-1 wrap-anywhere">{line}</li>{/each}
	</ul>
	<p class="pt-3 text-[14px] text-quiet">
		It opens to signers at once. Who has it already gets no new message, unless their address is another; who had opened
		it is told at the next click, and keeps what they entered wherever its place is still there.
	</p>
	<p class="wrong pt-3 empty:hidden" role="alert">{wrong}</p>
	<p class="flex gap-2 pt-4">
		<button class="button primary" disabled={busy} onclick={send}
			>{busy ? 'One moment…' : said.length === 0 ? 'Open it unchanged' : 'Send the changes'}</button
		><Dialog.Close class="button">Not yet</Dialog.Close>
	</p>
</DialogBox>
