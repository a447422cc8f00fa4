<script lang="ts">
	import type { Signing } from './signing.svelte';
	import { useWords } from './words';

	/** The people whom a host has in front of them: the device is handed to each, and afterwards the host says how they know them. */
	let { signing, onhand }: { signing: Signing; onhand: (guest: string) => void } = $props();

	const words = useWords();
	const KNOWN = ['known', 'document'] as const;
</script>

<h3 class="text-[16px]">{words()('host.title')}</h3>
{#each signing.hosted as guest (guest.id)}
	{#if guest.done}
		<fieldset class="grid gap-1 pb-3">
			<legend class="pb-1 font-semibold">{words()('host.how', { name: guest.name })}</legend>
			{#each KNOWN as how (how)}
				<label class="flex min-h-[44px] items-center gap-2"
					><input
						class="size-5"
						type="radio"
						name="guest-{guest.id}"
						checked={signing.guests[guest.id] === how}
						onchange={() => (signing.guests[guest.id] = how)}
					/>
					{words()(`host.${how}`)}</label
				>
			{/each}
			<input
				class="input min-h-[44px]!"
				maxlength="200"
				aria-label={words()('host.how', { name: guest.name })}
				value={(KNOWN as readonly string[]).includes(signing.guests[guest.id]!) ? '' : signing.guests[guest.id]}
				oninput={(e) => (signing.guests[guest.id] = e.currentTarget.value)}
			/>
		</fieldset>
	{:else}
		<p class="pb-2 text-[15px]">{words()('host.text', { name: guest.name })}</p>
		<p class="pb-3">
			<button class="button primary large w-full" onclick={() => onhand(guest.id)}
				>{words()('host.hand', { name: guest.name })}</button
			>
		</p>
	{/if}
{/each}
