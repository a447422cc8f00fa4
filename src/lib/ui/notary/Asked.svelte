<script lang="ts">
	import { useWords } from '../signing/words';
	import type { Room } from './room.svelte';

	/** What is asked of somebody before the notary now: one thing at a time. */
	let { room, back }: { room: Room; back: string } = $props();

	const words = useWords();
	const view = $derived(room.view);
	const me = $derived(view.people.find((one) => one.id === view.me.id)!);
	const notary = $derived(view.people.find((one) => one.notary)!);
	let doubting = $state(false);
	let why = $state('');

	/** which one thing it is */
	const asked = $derived.by(() => {
		if (view.is === 'over') return 'over';
		if (view.drawn && me.signed) return me.approved ? 'approved' : me.doubt ? 'told' : 'result';
		if (me.signed) return 'signed';
		if (!view.present && !me.there) return 'outside';
		if (!view.running) return view.begun ? 'later' : notary.there ? 'soon' : 'not yet';
		if (view.turn === me.id) return 'turn';
		if (!me.confirmed) return 'confirm';
		if (view.oath && !me.sworn) return 'oath';
		return 'wait';
	});
	const SAYS = {
		over: 'room.over',
		approved: 'room.thanks',
		told: 'room.told',
		signed: 'room.wait act',
		later: 'room.later',
		soon: 'room.soon',
		'not yet': 'room.not yet',
		confirm: 'room.wait confirm',
		wait: 'room.wait turn'
	} as const;

	async function doubt(event: SubmitEvent) {
		event.preventDefault();
		if (await room.deed({ do: 'doubt', why })) {
			doubting = false;
			why = '';
		}
	}
</script>

<div class="text-[17px] leading-7">
	{#if asked === 'outside'}
		<p class="pb-2">{words()('notary.about', { notary: view.notary.name, jurisdiction: view.notary.jurisdiction })}</p>
		<p class="text-[15px] text-quiet">
			{view.appointment
				? words()('notary.when', { when: view.appointment.when, minutes: view.appointment.minutes })
				: words()('notary.no time')}
			{#if view.appointment}<a class="text-thread underline" href="{room.base}/room/calendar" download
					>{words()('room.calendar')}</a
				>{/if}
		</p>
		{#if view.fee}<p class="text-[15px] text-quiet">{words()('notary.fee', { fee: view.fee })}</p>{/if}
		<p class="pt-3">
			<button class="button primary large w-full" disabled={room.busy} onclick={() => room.deed({ do: 'enter' })}
				>{words()('notary.go')}</button
			>
		</p>
	{:else if asked === 'oath'}
		<p>{words()('room.oath')}</p>
		<blockquote class="my-3 border-s-2 border-thread ps-4 font-serif" lang="en" dir="ltr">{view.oath}</blockquote>
		<button class="button primary large w-full" disabled={room.busy} onclick={() => room.deed({ do: 'oath' })}
			>{words()('room.swear')}</button
		>
	{:else if asked === 'turn'}
		<p class="pb-3">{words()('room.turn')}</p>
		<a class="button primary large w-full justify-center" href={back}>{words()('room.sign')}</a>
	{:else if asked === 'result' || asked === 'told'}
		<p>{words()(asked === 'told' ? 'room.told' : 'room.result')}</p>
		<blockquote class="my-3 border-s-2 border-thread ps-4 font-serif whitespace-pre-wrap" dir="auto">
			{view.drawn}
		</blockquote>
		{#if doubting}
			<form onsubmit={doubt}>
				<label
					>{words()('room.what wrong')}<textarea class="input mt-1" maxlength="2000" required bind:value={why}
					></textarea></label
				>
				<p class="flex flex-wrap gap-2 pt-2">
					<button class="button primary large" disabled={room.busy}>{words()('room.say')}</button>
					<button type="button" class="button large" onclick={() => (doubting = false)}>{words()('back')}</button>
				</p>
			</form>
		{:else}
			<p class="flex flex-wrap gap-2">
				<button class="button primary large" disabled={room.busy} onclick={() => room.deed({ do: 'approve' })}
					>{words()('room.approve')}</button
				>
				<button class="button large" onclick={() => (doubting = true)}>{words()('room.doubt')}</button>
			</p>
		{/if}
	{:else}<p>{words()(SAYS[asked])}</p>{/if}
</div>
