<script lang="ts">
	import { enhance } from '$app/forms';
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';

	/** All that is held on a person: handed to them as a file, or forgotten but for what must stay. For owners of the office. */
	interface Stays {
		reference: string;
		title: string;
		why: string;
		from: string | null;
	}
	interface Named {
		reference: string;
		title: string;
	}
	let {
		email,
		answered
	}: {
		email: string;
		answered: {
			say?: string;
			why?: string;
			forgotten?: { gone: Named[]; agreed: Named[]; stay: Stays[]; number: number | null; certificate: string | null };
		} | null;
	} = $props();

	interface Held extends Named {
		id: string;
		stays: string | null;
	}
	let asking = $state(false);
	/** null while it is being looked through */
	let found = $state.raw<Held[] | null>(null);
	let wrong = $state('');
	const held = $derived(found ?? []);

	async function ask() {
		[asking, found, wrong] = [true, null, ''];
		const response = await fetch(`/people/held?address=${encodeURIComponent(email)}`).catch(() => null);
		if (response?.ok) found = ((await response.json()) as { held: Held[] }).held;
		else wrong = 'What is held could not be looked through. Close this, and open it again.';
	}
	const go = $derived(held.filter((one) => one.stays === null));
	const stay = $derived(held.filter((one) => one.stays !== null));
	const packets = (n: number) => (n === 1 ? 'one packet' : `${n} packets`);
</script>

<section aria-labelledby="held">
	<h2 id="held" class="pb-2 text-[17px]">What is held on them</h2>
	<p class="pb-2 text-[14px] text-quiet">
		Everything they have taken part in, what they have answered, when and from where they came. Owners hand it to them,
		or forget it.
	</p>
	<div class="flex flex-wrap gap-2">
		<form method="POST" action="/people/held">
			<input type="hidden" name="address" value={email} /><button class="button">Fetch it (ZIP)</button>
		</form>
		<button type="button" class="button grave" onclick={ask}>Forget them…</button>
	</div>
	{#if answered?.forgotten}
		{@const came = answered.forgotten}
		<div class="mt-3 border-l-[3px] border-moss bg-linen px-3 py-2 text-[14px]" role="status">
			<p>
				{came.gone.length === 0 ? 'Nothing went' : `${packets(came.gone.length)} went`}{#if came.number !== null}, <a
						class="text-thread underline"
						href="/records/gone">certificate {came.certificate}</a
					>{/if}.{came.agreed.length > 0 ? ` ${packets(came.agreed.length)} wait for somebody else’s word.` : ''}
			</p>
			{#if came.stay.length > 0}
				<p class="pt-1 font-semibold">What stays</p>
				<ul class="grid gap-1">
					{#each came.stay as one (one.reference)}<li>
							<span class="font-mono">{one.reference}</span>
							{one.title}: {one.why}{one.from ? ` It may go after ${one.from}.` : ''}
						</li>{/each}
				</ul>
			{/if}
		</div>
	{/if}
</section>

<DialogBox bind:open={asking} place="top-24 left-1/2 w-[480px] -translate-x-1/2">
	<Dialog.Title class="font-serif text-lg font-semibold">Forget {email}</Dialog.Title>
	<Dialog.Description class="pt-1 pb-2"
		>{go.length === 0
			? 'None of their packets may go now.'
			: `${packets(go.length)} of theirs will go for good, with all that stands in it; nobody can bring that back.`}
		What else is kept of their address goes as well.</Dialog.Description
	>
	{#if stay.length > 0}
		<p class="pb-1">These stay, and the answer to them can say why:</p>
		<ul class="grid max-h-44 gap-1 overflow-y-auto pb-2 text-[14px]">
			{#each stay as one (one.id)}<li>
					<span class="font-mono">{one.reference}</span>
					{one.title}: {one.stays}
				</li>{/each}
		</ul>
	{/if}
	<form
		method="POST"
		action="?/forget&address={encodeURIComponent(email)}"
		class="grid gap-2"
		use:enhance={() =>
			async ({ result, update }) => {
				await update({ reset: false });
				if (result.type === 'success') asking = false;
			}}
	>
		<input type="hidden" name="address" value={email} />
		<label
			>Why<textarea class="input mt-1 h-16" name="why" required maxlength="2000">{answered?.why ?? ''}</textarea></label
		>
		<p class="wrong empty:hidden" role="alert">{wrong || (answered?.say ?? '')}</p>
		<p class="flex gap-2">
			<button class="button grave" disabled={found === null}>Forget them</button><Dialog.Close class="button"
				>Leave it</Dialog.Close
			>
		</p>
	</form>
</DialogBox>
