<script lang="ts">
	import { enhance } from '$app/forms';
	import DialogBox from '../parts/DialogBox.svelte';
	import { Dialog } from '../parts/dialog';

	/** Sending: started, seen, paused, gone on with, stopped. */
	let {
		title,
		going,
		counts,
		own,
		run,
		now
	}: {
		/** of the template */
		title: string;
		going: 'rests' | 'goes' | 'pauses';
		counts: Record<string, number>;
		/** one of them is the sender's own */
		own: boolean;
		run: { wanted: number; sent: number; failed: number; beganAt: string | null; pace: number | null };
		now: string;
	} = $props();

	let sending = $state(false);
	const ready = $derived(counts['ready'] ?? 0);
	const stays = $derived((counts['twice'] ?? 0) + (counts['faulty'] ?? 0) + (counts['left out'] ?? 0));
	const done = $derived(run.sent + run.failed);
	const left = $derived.by(() => {
		const still = run.wanted - done;
		if (run.pace) return still / run.pace;
		const spent = run.beganAt ? (Date.parse(now) - Date.parse(run.beganAt)) / 60_000 : 0;
		return done > 0 ? (spent / done) * still : null;
	});
	const said = (minutes: number) =>
		minutes < 1 ? 'less than a minute left' : `about ${Math.ceil(minutes)} ${minutes <= 1 ? 'minute' : 'minutes'} left`;
</script>

{#snippet deed(action: string, says: string, look = 'button')}
	<form method="POST" action="?/{action}" use:enhance><button class={look}>{says}</button></form>
{/snippet}

{#if going === 'rests'}
	<button class="button primary" disabled={ready === 0} onclick={() => (sending = true)}
		>{ready === 0 ? 'Nothing to send' : `Send ${ready}…`}</button
	>
{:else}
	<div class="flex flex-wrap items-center gap-2">
		<p role="status">
			<progress class="align-middle" max={run.wanted} value={done} aria-label="Sent so far"></progress>
			{run.sent} of {run.wanted} sent{run.failed > 0 ? `, ${run.failed} could not be` : ''}{going === 'pauses'
				? '; paused.'
				: left === null
					? '; you can leave this page.'
					: `; ${said(left)}.`}
		</p>
		{#if going === 'goes'}{@render deed('pause', 'Pause')}{:else}{@render deed('on', 'Go on', 'button primary')}{/if}
		{@render deed('stop', 'Stop', 'button grave')}
	</div>
{/if}

<DialogBox bind:open={sending} place="top-16 left-1/2 w-[460px] -translate-x-1/2">
	<Dialog.Title class="pb-2 font-serif text-lg font-semibold">{title}, {ready} times</Dialog.Title>
	<Dialog.Description>
		Each of the {ready} gets a packet of their own{run.pace ? `, ${run.pace} in a minute` : ', at once'}.
		{#if own}One of them is you.{/if}
		{#if stays > 0}{stays}
			{stays === 1 ? 'row stays' : 'rows stay'} as they are: faulty, undecided, or left out.{/if}
		{#if (counts['gone'] ?? 0) > 0}Who has had theirs gets no second one.{/if}
	</Dialog.Description>
	<form
		method="POST"
		action="?/run"
		class="flex gap-2 pt-4"
		use:enhance={() =>
			async ({ update }) => {
				sending = false;
				await update();
			}}
	>
		<button class="button primary">Send {ready} now</button>
		<Dialog.Close class="button">Not yet</Dialog.Close>
	</form>
</DialogBox>
