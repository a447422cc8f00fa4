<script lang="ts">
	import { PLACEABLE, type PlacedKind } from '../../core/notary';
	import type { RoomPerson } from '../../core/packet';
	import Choice from '../parts/Choice.svelte';
	import { handTo } from '../signing/keeper';
	import { useWords } from '../signing/words';
	import type { Point } from './point';
	import Pointed from './Pointed.svelte';
	import type { Room } from './room.svelte';

	/** Somebody before the notary: confirmed, asked to sign, given a place that was missing, or asked once more. */
	let {
		room,
		person,
		pointed = $bindable()
	}: {
		room: Room;
		person: RoomPerson;
		pointed: Point | null;
	} = $props();

	const words = useWords();
	const view = $derived(room.view);
	let how = $derived(person.known);
	let doing = $state<'place' | 'again' | null>(null);
	let kind = $state<PlacedKind>('signature');
	let why = $state('');
	const HOW = $derived([
		...(person.known ? [person.known] : []),
		'showed me an identity document',
		'known to me personally',
		'known by two witnesses'
	]);
	const KINDS: Record<PlacedKind, string> = {
		signature: 'a signature',
		initials: 'initials',
		'signing-date': 'the date',
		name: 'their name',
		text: 'words'
	};

	async function again(event: SubmitEvent) {
		event.preventDefault();
		if (await room.deed({ do: 'again', who: person.id, why })) {
			doing = null;
			why = '';
		}
	}
	async function place() {
		if (pointed && (await room.deed({ do: 'place', who: person.id, kind, ...pointed }))) {
			doing = null;
			pointed = null;
		}
	}
</script>

<section class="border-t border-hairline py-2" aria-label={person.name}>
	<p>
		<b>{person.name}</b>
		<span class="text-[14px] text-quiet"
			>{person.signed
				? person.approved
					? 'signed, approved'
					: 'signed'
				: !person.there
					? 'not in the room'
					: view.turn === person.id
						? 'is signing now'
						: person.confirmed
							? `confirmed: ${person.confirmed}`
							: 'in the room'}</span
		>
	</p>
	{#if person.doubt}<p class="text-brick">Says that something is wrong: {person.doubt}</p>{/if}
	{#if person.there && !person.confirmed}
		{#if person.toShow}<p class="text-[14px]">Has not shown yet who they are.</p>
		{:else}
			{#if person.known}<p class="text-[14px]">Showed who they are {person.known}.</p>{/if}
			<Choice
				label="How you know that it is {person.name}"
				value={how}
				options={[['', 'choose'], ...HOW.map((one): [string, string] => [one, one])]}
				onchoose={(one) => (how = one)}
			/>
			<p class="pt-1">
				<button
					class="button primary"
					disabled={room.busy || how === ''}
					onclick={() => room.deed({ do: 'confirm', who: person.id, how })}
					>Confirm<span class="unseen"> {person.name}</span></button
				>
			</p>
		{/if}
	{:else if person.confirmed && !person.signed}
		{#if view.steps.includes('sworn') && !person.sworn}
			<p class="text-[14px]">Reads the oath aloud now.</p>
		{:else if view.turn !== person.id}
			<p class="flex flex-wrap gap-2 pt-1">
				<button class="button primary" disabled={room.busy} onclick={() => room.deed({ do: 'turn', who: person.id })}
					>Ask to sign<span class="unseen"> {person.name}</span></button
				>
				<button class="button" onclick={() => (doing = doing === 'place' ? null : 'place')}
					>A place is missing…<span class="unseen"> for {person.name}</span></button
				>
			</p>
		{/if}
	{/if}
	{#if person.guest && !person.approved}
		<p class="pt-1">
			<button
				class="button"
				onclick={async () => {
					room.wrong = (await handTo(room.base, person.id, `${room.base}/room`, words())) ?? '';
				}}>Hand them the device<span class="unseen">: {person.name}</span></button
			>
		</p>
	{/if}
	{#if doing === 'place'}
		<div class="grid gap-2 py-2">
			<Choice
				label="What is missing"
				value={kind}
				options={PLACEABLE.map((one) => [one, KINDS[one]])}
				onchoose={(one) => (kind = one as PlacedKind)}
			/>
			<Pointed bind:point={pointed} shown={view.page} />
			<p><button class="button primary" disabled={!pointed || room.busy} onclick={place}>Place it</button></p>
		</div>
	{/if}
	{#if person.signed && !person.approved}
		{#if doing === 'again'}
			<form class="grid gap-2 py-2" onsubmit={again}>
				<label
					>Why, in words for them<textarea class="input mt-1" maxlength="2000" required bind:value={why}
					></textarea></label
				>
				<p><button class="button primary" disabled={room.busy}>Let them sign once more</button></p>
			</form>
		{:else}<p class="pt-1">
				<button class="button" onclick={() => (doing = 'again')}
					>Once more…<span class="unseen"> for {person.name}</span></button
				>
			</p>{/if}
	{/if}
</section>
