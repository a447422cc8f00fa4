<script lang="ts">
	import { goto } from '$app/navigation';
	import { isoDay } from '../../core/calendar';
	import type { PacketView } from '../../core/packet';
	import Day from '../parts/Day.svelte';
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';
	import OneOf from '../parts/OneOf.svelte';
	import { post } from '../post';

	/** Begins an amendment: words or pages, or that the agreement ends or goes on. */
	let { open = $bindable(false), packet, now }: { open?: boolean; packet: PacketView; now: string } = $props();

	let does = $state<'changes' | 'ends' | 'renews'>('changes');
	let day = $state('');
	let why = $state('');
	let busy = $state(false);
	let wrong = $state('');

	async function begin(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		wrong = '';
		const came = await post<{ draft: string }>(
			`/packets/${packet.id}/amend`,
			{ does, ...(does !== 'changes' && { day, why }) },
			'Nothing was changed.'
		);
		busy = false;
		if ('wrong' in came) return void (wrong = came.wrong);
		await goto(`/bench/${came.draft}`);
	}
</script>

<DialogBox bind:open place="top-24 left-1/2 w-[480px] -translate-x-1/2">
	<Dialog.Title class="font-serif text-lg font-semibold">Amend {packet.reference}</Dialog.Title>
	<Dialog.Description class="pt-1 pb-3"
		>A new packet on the pages as they were sealed, for those who signed them. What is sealed stays as it is; once all
		have signed, the new one holds and this one is put into the archive.</Dialog.Description
	>
	<form class="grid gap-3" onsubmit={begin}>
		<OneOf
			label="What is to be changed"
			bind:value={does}
			options={[
				['changes', 'words or pages'],
				['ends', 'it ends'],
				['renews', 'it goes on']
			]}
		/>
		{#if does !== 'changes'}
			<Day
				label={does === 'ends' ? 'Its last day' : 'Until'}
				value={day}
				required
				least={isoDay(packet.zone, now)}
				onchoose={(chosen) => (day = chosen)}
			/>
			<label
				>Why <span class="text-quiet">everybody reads it</span><textarea
					class="input mt-1 h-16"
					maxlength="1000"
					bind:value={why}></textarea></label
			>
		{/if}
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
		<p class="flex gap-2">
			<button class="button primary" disabled={busy}
				>{busy ? 'Its pages are being prepared…' : 'Go on to the Bench'}</button
			>
			<Dialog.Close class="button">Leave it</Dialog.Close>
		</p>
	</form>
</DialogBox>
