<script lang="ts">
	import { enhance } from '$app/forms';
	import X from '@lucide/svelte/icons/x';
	import type { OutRow } from '../../core/packet';
	import { day } from '../dates';
	import { tell } from '../parts/told';
	import { drawn } from '../thread/stops';
	import StopNode from '../thread/StopNode.svelte';
	import { spent } from './having';

	/** A packet opened beside the list: how it stands, and what can be done without leaving. */
	let {
		packet,
		zone,
		now,
		mayAct,
		onclose
	}: {
		packet: OutRow;
		zone: string;
		now: string;
		mayAct: boolean;
		onclose: () => void;
	} = $props();

	const stops = $derived(drawn(packet.thread, now));
	const waitsFor = $derived(
		packet.thread.flat().filter((p) => ['notified', 'opened'].includes(p.standing) && p.duty !== 'gets a copy')
	);
	let wrong = $state('');
</script>

<aside
	aria-labelledby="beside"
	class="w-full border-l border-hairline bg-linen px-5 py-5 min-[900px]:sticky min-[900px]:top-[46px] min-[900px]:h-[calc(100dvh-46px)] min-[900px]:w-[330px] min-[900px]:overflow-y-auto"
>
	<div class="flex items-start gap-2">
		<h2 id="beside" class="min-w-0 flex-1 text-[17px] wrap-anywhere">{packet.title}</h2>
		<button type="button" class="plain" aria-label="Close" onclick={onclose}><X size={16} aria-hidden="true" /></button>
	</div>
	<p class="pb-3 text-[14px] text-quiet">
		<span class="font-mono">{packet.reference}</span> · sent by {packet.sender}
		{day(packet.sentAt, zone, now)}{packet.folder ? ` · ${packet.folder}` : ''}
	</p>
	<ol class="pb-3">
		{#each stops as stop, i (i)}
			<li class="flex gap-3 py-1">
				<svg width="18" height="22" class="shrink-0 overflow-visible" aria-hidden="true"
					><g transform="translate(9 11)"><StopNode node={stop.node} size={6} weight={2.5} /></g></svg
				>
				<span class="min-w-0 text-[14px] leading-[22px]"
					>{stop.people.map((p) => p.name || 'to be named').join(', ')}<span class="unseen">: {stop.sentence}</span>
					<span class="text-quiet" aria-hidden="true"
						>{stop.people[0]?.duty}{stop.days > 0 ? `, ${stop.days} ${stop.days === 1 ? 'day' : 'days'}` : ''}</span
					></span
				>
			</li>
		{/each}
	</ol>
	<dl class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 pb-4 text-[14px]">
		<dt class="text-quiet">Out for</dt>
		<dd>{spent(packet.sentAt, now, packet.usualHours)}</dd>
		<dt class="text-quiet">Last day</dt>
		<dd>{packet.deadline ? day(packet.deadline, zone, now) : 'open'}</dd>
	</dl>
	<p class="wrong pb-2 empty:hidden" role="alert">{wrong}</p>
	<div class="flex flex-wrap gap-2">
		<a class="button" href="/packets/{packet.id}">Open it</a>
		{#if mayAct && waitsFor.length > 0}
			<form
				method="POST"
				action="/packets/{packet.id}?/nudge"
				use:enhance={() =>
					async ({ result }) => {
						wrong = result.type === 'failure' ? String(result.data?.['say'] ?? 'It could not be done.') : '';
						if (result.type === 'success') tell(`Nudged ${waitsFor.map((p) => p.name).join(', ')}`);
					}}
			>
				<button class="button">Nudge {waitsFor.length === 1 ? waitsFor[0]!.name : `all ${waitsFor.length}`}</button>
			</form>
		{/if}
	</div>
</aside>
