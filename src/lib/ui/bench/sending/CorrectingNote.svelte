<script lang="ts">
	import { clock, rightNow } from '../../dates';
	import type { Bench } from '../bench.svelte';
	import type { Correcting } from '../../../core/packet';

	/** How the packet stands that is being corrected here: shut, open again, or ended. A strip above the pages. */
	let {
		bench,
		correcting,
		zone,
		onend
	}: { bench: Bench; correcting: Correcting; zone: string; onend: (how: 'leave' | 'keep as draft') => void } = $props();

	let now = $state(rightNow());
	$effect(() => {
		const timer = setInterval(() => (now = rightNow()), 5000);
		return () => clearInterval(timer);
	});
	const shut = $derived(correcting.until !== null && correcting.until > now);
	const other = $derived(correcting.by !== '' && correcting.by !== bench.office.sender.name);
</script>

<div
	role="status"
	class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b px-3.5 py-1.5 text-[14px] {shut
		? 'border-hairline bg-wash'
		: 'border-copper bg-sheet'}"
>
	{#if correcting.ended}
		<p class="flex-1">This packet has ended, so the correction can’t be sent. Nothing of it is lost.</p>
		<button class="button" onclick={() => onend('keep as draft')}>Keep it as a draft of its own</button>
		<button class="button" onclick={() => onend('leave')}>Put it away</button>
	{:else if shut}
		<p class="flex-1">
			<b>Shut to signers</b> until {clock(correcting.until!, zone)}{other ? `, by ${correcting.by}` : ''}; each change
			gives it another half hour.
		</p>
		<button class="button" onclick={() => onend('leave')}>Leave it as it was</button>
	{:else}
		<p class="flex-1"><b>Open to signers again</b>, unchanged. What you changed is kept here.</p>
		<form method="POST" action="/packets/{correcting.packet}?/begin-correction">
			<button class="button primary">Shut it and go on</button>
		</form>
		<button class="button" onclick={() => onend('leave')}>Put it away</button>
	{/if}
</div>
