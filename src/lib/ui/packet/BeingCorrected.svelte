<script lang="ts">
	import { clock } from '../dates';
	import { saidTo, type Answered } from './form';

	/** A correction that has been begun: the packet is shut, or open again since nothing was changed for a while. */
	let {
		packet,
		now,
		answered
	}: {
		packet: { correcting: { by: string; until: string } | null; zone: string; status: string };
		now: string;
		answered: Answered | null;
	} = $props();
	const shut = $derived(packet.correcting !== null && packet.correcting.until > now);
	const open = $derived(packet.status === 'out');
</script>

<div class="mb-5 border-l-[3px] bg-linen px-4 py-3 {shut ? 'border-thread' : 'border-copper'}">
	<h2 class="text-[16px]">{shut ? 'Being put right' : 'Put right, not sent yet'}</h2>
	<p class="pb-2 text-[14px]">
		{#if shut}{packet.correcting!.by} is at it. Shut to signers until {clock(packet.correcting!.until, packet.zone)}, or
			half an hour after the last change.
		{:else if open}It was not sent. The packet is open to signers, unchanged; what was changed is kept.
		{:else}It was not sent before this ended. What was changed is kept.{/if}
	</p>
	<p class="wrong empty:hidden" role="alert">{saidTo(answered, 'begin-correction')}</p>
	<div class="flex flex-wrap gap-2">
		{#if open}<form method="POST" action="?/begin-correction">
				<button class="button">Go on putting it right</button>
			</form>{/if}
		<form method="POST" action="?/leave-correction">
			<button class="button">{shut ? 'Leave it as it was' : 'Put what was changed away'}</button>
		</form>
	</div>
</div>
