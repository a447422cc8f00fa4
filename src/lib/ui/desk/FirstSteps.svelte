<script lang="ts">
	import Check from '@lucide/svelte/icons/check';

	/** Four things from an empty Pellum to a first sealed packet; each ticks itself. */
	let {
		steps,
		onaway
	}: { steps: { named: boolean; prepared: boolean; sent: boolean; sealed: boolean }; onaway: () => void } = $props();

	const all = $derived([
		{
			done: steps.named,
			what: 'Name your organisation',
			how: 'Letters, seals and the signing page bear it.',
			to: '/settings'
		},
		{
			done: steps.prepared,
			what: 'Put a document on the Bench',
			how: 'Press “New packet” and drop any PDF; name yourself as the one who signs.'
		},
		{ done: steps.sent, what: 'Send it to yourself', how: 'Press S on the Bench to place the signature, then Send.' },
		{ done: steps.sealed, what: 'Sign it', how: 'The letter brings the link; the sealed copy comes by itself.' }
	]);
	const next = $derived(all.findIndex((step) => !step.done));
</script>

<section aria-labelledby="steps" class="mb-4 border-b border-hairline pb-4">
	<div class="flex items-baseline justify-between gap-3">
		<h2 id="steps" class="text-[17px]">Your first packet</h2>
		<button type="button" class="plain text-[14px]" onclick={onaway}>Put this away</button>
	</div>
	<ol class="pt-1">
		{#each all as step, i (step.what)}
			<li class="flex gap-3 py-1.5">
				<span
					class="mt-0.5 flex size-5 shrink-0 items-center justify-center rounded-full border text-[12px] {step.done
						? 'border-moss text-moss'
						: i === next
							? 'border-thread font-bold text-thread'
							: 'border-line text-quiet'}"
					>{#if step.done}<Check size={13} aria-label="done" />{:else}{i + 1}{/if}</span
				>
				<span class={step.done ? 'text-quiet' : ''}>
					{#if step.to && !step.done}<a class="font-semibold text-thread underline" href={step.to}>{step.what}</a
						>{:else}<b class="font-semibold">{step.what}</b>{/if}
					{#if i === next}<span class="block text-[14px] text-quiet">{step.how}</span>{/if}
				</span>
			</li>
		{/each}
	</ol>
</section>
