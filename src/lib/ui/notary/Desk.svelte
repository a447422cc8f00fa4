<script lang="ts">
	import { dayIn } from '../../core/calendar';
	import Suggested, { among } from '../parts/Suggested.svelte';
	import DrawUp from './DrawUp.svelte';
	import type { Point } from './point';
	import type { Room } from './room.svelte';
	import OnePerson from './OnePerson.svelte';

	/** The notary's own part of the room: each step where it can be done, in the order in which it is done. */
	let { room, pointed = $bindable() }: { room: Room; pointed: Point | null } = $props();

	const view = $derived(room.view);
	const comers = $derived(view.people.filter((one) => !one.notary));
	const open = $derived(comers.filter((one) => !one.signed && one.stage !== 'left out'));
	const unapproved = $derived(comers.filter((one) => !one.approved && one.stage !== 'left out'));
	let ending = $state<'pause' | 'refuse' | null>(null);
	let why = $state('');
	const REASONS = ['It goes on at a time we agree on', 'Somebody did not come', 'The connection is too bad'];

	async function end(event: SubmitEvent) {
		event.preventDefault();
		if (await room.deed({ do: ending, why })) {
			ending = null;
			why = '';
		}
	}
</script>

<h2 class="text-[16px] first-letter:uppercase">
	{view.act}
	<span class="text-[14px] font-normal text-quiet"
		>commission {view.notary.number}, until
		<span class="whitespace-nowrap">{dayIn('UTC', view.notary.until)}</span></span
	>
</h2>
<p class="pb-2 text-[14px] text-quiet">
	{view.appointment ? `Appointment: ${view.appointment.when}. ` : ''}{view.fee ? `Fee: ${view.fee}.` : ''}
</p>
{#if view.is === 'over'}
	<p>The act is done, or the packet has ended. It stands in your journal.</p>
{:else if !view.present}
	<button class="button primary" disabled={room.busy} onclick={() => room.deed({ do: 'enter' })}
		>Go into the room</button
	>
{:else if !view.running}
	<p class="pb-2">
		{view.begun
			? 'It goes on where it stopped; nothing is done twice.'
			: `${open.filter((one) => one.there).length} of ${comers.length} are here.`}
	</p>
	<button class="button primary" disabled={room.busy} onclick={() => room.deed({ do: 'begin' })}
		>{view.begun ? 'Go on with the session' : 'Begin the session'}</button
	>
{:else}
	{#each comers as person (person.id)}<OnePerson {room} {person} bind:pointed />{/each}
	{#if open.length === 0}
		<DrawUp {room} bind:pointed />
		{#if view.drawn}
			<p class="pt-3 text-[14px] text-quiet">
				{unapproved.length === 0
					? 'Everybody has approved it.'
					: `Waits for ${unapproved.map((one) => one.name).join(', ')} to approve it.`}
			</p>
			<p class="pt-2">
				<button
					class="button primary"
					disabled={room.busy || unapproved.length > 0}
					onclick={() => room.deed({ do: 'finish' })}>Sign with your certificate</button
				>
			</p>
		{/if}
	{/if}
	{#if ending}
		<form class="grid gap-2 pt-4" onsubmit={end}>
			{#if ending === 'pause'}
				<Suggested
					label="Why it goes on another day"
					value={why}
					most={200}
					offered={among(REASONS)}
					oninput={(words) => (why = words)}
					ontake={({ words }) => (why = words)}
				/>
			{:else}
				<label
					>Why the act is refused <span class="text-quiet">it ends for everyone, and stands in your journal</span
					><textarea class="input mt-1" maxlength="2000" required bind:value={why}></textarea></label
				>
			{/if}
			<p class="flex gap-2">
				<button class="button {ending === 'refuse' ? 'grave' : 'primary'}" disabled={room.busy}
					>{ending === 'refuse' ? 'Refuse the act' : 'Go on another day'}</button
				>
				<button type="button" class="button" onclick={() => (ending = null)}>Leave it</button>
			</p>
		</form>
	{:else}
		<p class="flex flex-wrap gap-2 pt-4">
			<button class="button" onclick={() => (ending = 'pause')}>Go on another day…</button>
			<button class="button" onclick={() => (ending = 'refuse')}>Refuse…</button>
		</p>
	{/if}
{/if}
