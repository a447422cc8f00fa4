<script lang="ts">
	import { datesIn } from '../../core/intl';
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import { makePasskey } from '../frame/passkey';

	/** Passkeys: on this device or on a stick. */
	let {
		passkeys,
		possible,
		proved
	}: {
		passkeys: { id: string; name: string; createdAt: string; usedAt: string | null }[];
		possible: boolean;
		proved: boolean;
	} = $props();
	let name = $state('');
	let busy = $state(false);
	let wrong = $state('');
	const day = (at: string) => datesIn('en-GB', { dateStyle: 'medium' }).format(new Date(at));

	async function add(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		const said = await makePasskey(name);
		wrong = 'wrong' in said ? said.wrong : '';
		if (!wrong) name = '';
		busy = false;
		await invalidateAll();
	}
</script>

<h3 class="pt-5 text-[16px]">Passkeys</h3>
<p class="pt-1 text-[14px] text-quiet">
	A key in your computer, phone or a stick, which opens with your finger, face or PIN. It signs you in alone, and can’t
	be guessed or given away.
</p>
<ul>
	{#each passkeys as key (key.id)}
		<li class="flex items-center gap-3 border-b border-hairline py-2">
			<div class="min-w-0 flex-1">
				<p class="font-semibold wrap-anywhere">{key.name}</p>
				<p class="text-[14px] text-quiet">
					since {day(key.createdAt)}{key.usedAt ? `, last used ${day(key.usedAt)}` : ', not used yet'}
				</p>
			</div>
			<form method="POST" action="?/passkey" use:enhance>
				<input type="hidden" name="id" value={key.id} /><button
					class="button grave"
					disabled={!proved}
					aria-label="Remove the passkey {key.name}">Remove</button
				>
			</form>
		</li>
	{/each}
</ul>
{#if possible}
	<form onsubmit={add} class="flex flex-wrap items-end gap-2 pt-3">
		<label class="min-w-0 flex-1"
			>Called<input class="input mt-1" maxlength="60" placeholder="such as: office laptop" bind:value={name} /></label
		>
		<button class="button" disabled={!proved || busy}>{busy ? 'Waiting for the device …' : 'Add a passkey'}</button>
	</form>
	<p class="wrong pt-1 empty:hidden" role="alert">{wrong}</p>
{:else}
	<p class="pt-2 text-[14px] text-quiet">
		Passkeys need an address with a name and a safe connection (https), which this Pellum doesn’t have.
	</p>
{/if}
