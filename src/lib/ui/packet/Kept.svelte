<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import type { PacketView } from '../../core/packet';
	import { day } from '../dates';
	import Day from '../parts/Day.svelte';
	import { tell } from '../parts/told';
	import { post } from '../post';

	/** How long a packet is kept, by whose word, and what holds it; the way to keep it longer, or as the rules say again. */
	let { packet, mayJudge, now }: { packet: PacketView; mayJudge: boolean; now: string } = $props();

	let changing = $state(false);
	let until = $state('');
	let why = $state('');
	let wrong = $state('');
	const shown = $derived(packet.kept ? day(`${packet.kept.until}T12:00:00Z`, packet.zone, now) : '');

	async function keep(to: string | null) {
		const came = await post<{ refused: { say: string }[] }>(
			'/records/do',
			{ do: 'keep', ids: [packet.id], until: to, why },
			'Nothing was changed.'
		);
		wrong = 'wrong' in came ? came.wrong : (came.refused[0]?.say ?? '');
		if (wrong) return;
		[changing, why] = [false, ''];
		await invalidateAll();
		tell(to === null ? 'Kept for as long as the rules say' : 'Kept until that day');
	}
</script>

<div class="pb-3 text-[14px]">
	{#each packet.holds as hold (hold.id)}<p class="font-semibold text-copper">
			Under the legal hold <a class="underline" href="/records/holds">{hold.name}</a>: nothing of it goes.
		</p>{/each}
	<p class="flex flex-wrap items-baseline gap-x-3">
		<span class="wrap-anywhere"
			><span class="text-quiet">Kept</span>
			{packet.kept ? `until ${shown}, by ${packet.kept.by}` : 'for as long as nobody bins it'}</span
		>
		{#if mayJudge && !changing}<button
				class="text-thread underline"
				onclick={() => {
					until = packet.kept?.until ?? '';
					changing = true;
				}}>Change…</button
			>{/if}
	</p>
	{#if changing}
		<form
			class="grid gap-2 py-2"
			onsubmit={(event) => {
				event.preventDefault();
				void keep(until);
			}}
		>
			<Day label="Keep it until" value={until} required onchoose={(chosen) => (until = chosen)} />
			<label>Why<textarea class="input mt-1 h-16" required bind:value={why}></textarea></label>
			<p class="wrong empty:hidden" role="alert">{wrong}</p>
			<p class="flex flex-wrap gap-2">
				<button class="button primary">Keep it until then</button>
				{#if packet.kept?.said}<button type="button" class="button" onclick={() => keep(null)}>As the rules say</button
					>{/if}
				<button type="button" class="button" onclick={() => (changing = false)}>Leave it</button>
			</p>
		</form>
	{/if}
</div>
