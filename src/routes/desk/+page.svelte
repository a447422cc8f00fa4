<script lang="ts">
	import Pager from '$lib/ui/lists/Pager.svelte';
	import { daysBetween } from '$lib/core/calendar';
	import { day } from '$lib/ui/dates';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import NeedCard from '$lib/ui/lists/NeedCard.svelte';
	import PacketName from '$lib/ui/lists/PacketName.svelte';
	import Thread from '$lib/ui/thread/Thread.svelte';
	import type { Thread as Route } from '$lib/core/packet';

	let { data } = $props();
	const zone = $derived(data.organisation.zone);
	const mayAct = $derived(data.account?.level !== 'viewer');
	const live = $derived(`${data.count} out, ${data.needs.length} need you`);

	$effect(() => keepCurrent());

	const CHIPS = [
		['all', 'All'],
		['mine', 'Sent by you'],
		['ending', 'Ending in 3 days'],
		['unreachable', 'Unreachable']
	] as const;

	function having(thread: Route): { names: string; note: string; tone: string } {
		const have = thread
			.flat()
			.filter((p) => ['notified', 'opened', 'unreachable', 'held'].includes(p.standing) && p.duty !== 'gets a copy');
		const first = have[0];
		if (!first) return { names: '', note: '', tone: '' };
		const names = have.map((p) => (p.name === data.account?.name ? 'you' : p.name)).join(', ');
		if (have.some((p) => p.standing === 'held')) return { names, note: 'held', tone: 'text-brick' };
		if (have.some((p) => p.standing === 'unreachable')) return { names, note: 'unreachable', tone: 'text-brick' };
		const days = Math.max(...have.map((p) => (p.since ? daysBetween(p.since, data.now) : 0)));
		const opened = have.some((p) => p.standing === 'opened') ? ', opened' : '';
		return {
			names,
			note: (days === 0 ? 'since today' : `${days} ${days === 1 ? 'day' : 'days'}`) + opened,
			tone: days >= 7 ? 'text-copper' : 'text-quiet'
		};
	}
</script>

<svelte:head><title>Desk · Pellum</title></svelte:head>
<main id="main" class="flex min-h-[calc(100dvh-46px)] flex-wrap">
	<section aria-labelledby="needs" class="w-full border-r border-hairline bg-linen px-5 py-5 min-[900px]:w-[392px]">
		<h1 id="needs" class="border-b border-hairline pb-2 text-[17px]">
			Needs you <span class="pl-1 text-[14px] font-normal text-quiet">{data.needs.length}</span>
		</h1>
		<p class="unseen" aria-live="polite">{live}</p>
		<ul>
			{#each data.needs as need (JSON.stringify(need))}
				<NeedCard {need} {zone} now={data.now} {mayAct} />
			{:else}
				<li class="py-6 font-serif text-quiet">
					Nothing waits for you. What is out looks after itself until somebody needs a hand.
				</li>
			{/each}
		</ul>
	</section>
	<section aria-labelledby="out" class="min-w-0 flex-1 px-[22px] py-5">
		<h2 id="out" class="text-[17px]">
			Out now <span class="pl-1 text-[14px] font-normal text-quiet"
				>{data.count} {data.count === 1 ? 'packet' : 'packets'}, longest wait first</span
			>
		</h2>
		<nav aria-label="Show" class="flex flex-wrap gap-2 py-3">
			{#each CHIPS as [chip, name] (chip)}
				<a class="chip" href="?show={chip}" aria-current={data.chip === chip}>{name}</a>
			{/each}
		</nav>
		<div class="overflow-x-auto">
			<table class="list">
				<thead><tr><th>Packet</th><th>Where it is</th><th>With</th><th>Until</th></tr></thead>
				<tbody>
					{#each data.rows as row (row.id)}
						{@const with_ = having(row.thread)}
						{@const shut = row.shutUntil !== null && row.shutUntil > data.now}
						<tr class="hover:bg-wash">
							<td class="max-w-72"><PacketName packet={row} /></td>
							<td><Thread thread={row.thread} now={data.now} /></td>
							<td
								>{with_.names}<br /><span class="text-[13px] {shut ? 'text-copper' : with_.tone}"
									>{shut ? 'shut, being put right' : with_.note}</span
								></td
							>
							<td class="whitespace-nowrap">{row.deadline ? day(row.deadline, zone, data.now) : 'open'}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
		{#if data.rows.length === 0}
			<p class="max-w-md py-10 font-serif text-quiet">
				{data.chip === 'all'
					? 'Nothing is out. “New packet” prepares a document for somebody to sign; once sent, it is followed here.'
					: 'None of the packets that are out is like this.'}
			</p>
		{/if}
		<Pager
			offset={data.offset}
			shown={data.rows.length}
			page={data.page}
			to={(from) => `?show=${data.chip}&from=${from}`}
		/>
	</section>
</main>
