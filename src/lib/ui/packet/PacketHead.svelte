<script lang="ts">
	import { day } from '../dates';
	import type { MenuEntry } from '../parts/menu';
	import Menu from '../parts/Menu.svelte';
	import Chain from './Chain.svelte';
	import LongThread from '../thread/LongThread.svelte';
	import { saidTo, type Answered } from './form';
	import type { LikelyCourse, PacketView, PutAway } from '../../core/packet';

	/** What a packet is, how it stands, its thread; the one deed that is next, and all others in a menu. */
	let {
		packet,
		likely,
		now,
		myTurn,
		mayAct,
		mayPrepare,
		answered,
		onrenew,
		onwithdraw,
		onput,
		onamend
	}: {
		packet: PacketView;
		likely: LikelyCourse | null;
		now: string;
		myTurn: boolean;
		mayAct: boolean;
		mayPrepare: boolean;
		answered: Answered | null;
		onrenew: () => void;
		onwithdraw: () => void;
		onamend: () => void;
		/** null: back where it was */
		onput: (to: PutAway | null) => void;
	} = $props();

	const open = $derived(packet.status === 'out' || packet.status === 'held');
	const at = (what: string) => `/packets/${packet.id}/copies/${what}`;
	let correct = $state<HTMLFormElement>();
	let keep = $state<HTMLFormElement>();
	const mayCorrect = $derived(packet.status === 'out' && mayAct && !packet.correction);
	const mayRenew = $derived(packet.status !== 'completed' && mayAct && !packet.followedBy);

	const others = $derived<MenuEntry[]>([
		...(mayCorrect && myTurn ? [{ name: 'Put right…', run: () => correct?.requestSubmit() }] : []),
		...(mayRenew && open ? [{ name: 'New version…', note: 'Withdraws it and begins anew', run: onrenew }] : []),
		...(packet.chain ? [{ name: 'What holds, as one PDF', to: `/packets/${packet.id}/holds`, download: true }] : []),
		...(mayPrepare ? [{ name: 'Keep as template', run: () => keep?.requestSubmit() }] : []),
		...(packet.status === 'completed'
			? [
					{ name: 'Answers as JSON', to: at('answers'), download: true },
					{ name: 'Answers as CSV', to: at('answers-csv'), download: true }
				]
			: []),
		{ name: 'Record as JSON', to: at('record'), download: true },
		...(mayAct && packet.put ? [{ name: 'Take back', note: `From the ${packet.put}`, run: () => onput(null) }] : []),
		...(mayAct && packet.put !== 'archive'
			? [{ name: open ? 'Archive…' : 'Archive', note: 'Out of the way', run: () => onput('archive') }]
			: []),
		...(mayAct && packet.put !== 'bin' ? [{ name: open ? 'Bin…' : 'Bin', grave: true, run: () => onput('bin') }] : []),
		...(open && mayAct ? [{ name: 'Withdraw…', run: onwithdraw, grave: true }] : [])
	]);
</script>

<div class="border-b border-hairline px-6 pt-4 pb-2">
	<div class="flex flex-wrap items-start gap-x-6 gap-y-2">
		<div class="min-w-0 flex-1">
			<h1 class="text-[22px] leading-7">{packet.title}</h1>
			<p class="text-quiet">
				<span class="font-mono">{packet.reference}</span> · {packet.status} · sent by {packet.sender}
				{day(packet.sentAt, packet.zone, now)}{#each packet.from as made (made.template)}&nbsp;· from
					<a class="text-thread underline" href="/templates?id={made.template}">{made.title}</a>, version {made.version}{/each}{#if packet.begun}&nbsp;·
					begun by {packet.begun.by} through
					{#if mayPrepare}<a class="text-thread underline" href="/intakes/{packet.begun.intake}"
							>{packet.begun.heading}</a
						>{:else}{packet.begun.heading}{/if}{/if}{#if packet.follows}&nbsp;· a new version of
					<a class="text-thread underline" href="/packets/{packet.follows.id}">{packet.follows.reference}</a
					>{/if}{#if packet.followedBy}&nbsp;· followed by
					<a class="text-thread underline" href="/packets/{packet.followedBy.id}">{packet.followedBy.reference}</a
					>{/if}{#if packet.deadline && open}&nbsp;· until {day(packet.deadline, packet.zone, now)}{/if}
			</p>
			<p>
				{packet.why}{#if packet.put}&nbsp;<b>It lies in the {packet.put}.</b>{/if}
			</p>
			{#if packet.chain}<Chain chain={packet.chain} />{/if}
			<p class="wrong empty:hidden" role="alert">
				{packet.correction ? '' : saidTo(answered, 'begin-correction')}
			</p>
		</div>
		<div class="flex flex-wrap gap-2">
			{#if myTurn}<form method="POST" action="/packets/{packet.id}/sign">
					<button class="button primary">Read and sign</button>
				</form>{/if}
			<form method="POST" action="?/begin-correction" bind:this={correct} class={mayCorrect ? '' : 'hidden'}>
				<button class="button {myTurn ? 'hidden' : ''}">Put right…</button>
			</form>
			{#if mayAct && packet.sealed}<button class="button" onclick={onamend}>Amend…</button>{/if}
			{#if mayRenew && !open}<button class="button" onclick={onrenew}>New version…</button>{/if}
			<form method="POST" action="/packets/{packet.id}/template" bind:this={keep} class="hidden"></form>
			<Menu label="More" hint="More to do with this packet" entries={others} />
		</div>
	</div>
	<div class="pt-3"><LongThread thread={packet.thread} {now} ended={!open} {likely} zone={packet.zone} /></div>
</div>
