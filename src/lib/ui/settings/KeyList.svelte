<script lang="ts">
	import { enhance } from '$app/forms';
	import { dayIn } from '../../core/calendar';
	import type { KeyRow } from '../../server/keys';
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';
	import OneOf from '../parts/OneOf.svelte';
	import { moment } from '../dates';

	/** The keys that sign now and those that did; each can be withdrawn, with a reason. */
	let { keys, zone, wrong, done }: { keys: KeyRow[]; zone: string; wrong: string; done: { listed: boolean } | null } =
		$props();

	let asked = $state<KeyRow | null>(null);
	let why = $state('lost');
	const standing = (key: KeyRow) =>
		key.withdrawn
			? `withdrawn ${moment(key.withdrawn.at, zone)}${key.withdrawn.why === 'keyCompromise' ? ', as somebody else may have it' : ''}`
			: key.bare
				? 'only to check what it has sealed: its private key is not here'
				: key.now
					? 'in use'
					: 'not used any more';
</script>

<ul class="max-w-2xl pt-2">
	{#each keys as key (key.name)}
		<li class="flex flex-wrap items-baseline gap-x-2 gap-y-1 border-b border-hairline py-2">
			<span class="min-w-64 flex-1"
				><b>{key.of}</b>, {key.use}<br /><span class="text-[14px]"
					>{key.own ? `from ${key.issuedBy}` : 'made here'}, certificate until {dayIn(zone, key.until)} · {standing(
						key
					)}</span
				><br /><span class="font-mono text-[13px] wrap-anywhere text-quiet">{key.fingerprint}</span></span
			>
			{#if !key.withdrawn}<button
					type="button"
					class="button"
					aria-label="Withdraw the {key.use} key of {key.of}, until {dayIn(zone, key.until)}"
					onclick={() => {
						why = 'lost';
						asked = key;
					}}>Withdraw…</button
				>{/if}
		</li>
	{:else}<li class="py-2 font-serif text-quiet">There are none yet: they are made when the first packet is sealed.</li>
	{/each}
</ul>
<p class="text-moss empty:hidden" role="status">
	{done
		? done.listed
			? 'It is withdrawn, and its authority says so. Another is made when one is needed.'
			: 'It is not used any more. No list of ours can say so: ask whoever issued it to withdraw it too.'
		: ''}
</p>

<DialogBox
	bind:open={() => asked !== null, (open) => !open && (asked = null)}
	place="top-28 left-1/2 w-[520px] -translate-x-1/2"
>
	<Dialog.Title class="font-serif text-lg font-semibold">Withdraw the {asked?.use} key of {asked?.of}</Dialog.Title>
	<Dialog.Description class="pt-1 pb-3"
		>{asked?.use.includes('time-stamping')
			? why === 'lost'
				? 'Copies whose last time-stamp is of it can’t be proven by what is in them any more; the published roots still prove their records.'
				: 'What it has stamped stays proven until its certificate ends.'
			: 'What it has sealed until now stays proven by the time-stamp. Nothing is sealed with it any more; another takes its place.'}</Dialog.Description
	>
	<form
		method="POST"
		action="?/withdraw"
		class="grid gap-3"
		use:enhance={() =>
			async ({ result, update }) => {
				await update({ reset: false });
				if (result.type === 'success') asked = null;
			}}
	>
		<input type="hidden" name="name" value={asked?.name ?? ''} />
		<OneOf
			label="Why"
			name="why"
			bind:value={why}
			options={[
				['lost', 'somebody else may have it'],
				['ceased', 'it is used no more']
			]}
		/>
		<label>What happened<input class="input mt-1" name="note" maxlength="200" required /></label>
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
		<p class="flex gap-2">
			<button class="button grave">Withdraw it</button><Dialog.Close class="button">Leave it</Dialog.Close>
		</p>
	</form>
</DialogBox>
