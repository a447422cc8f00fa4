<script lang="ts">
	import { enhance } from '$app/forms';
	import { daysBetween } from '../../core/calendar';
	import type { BatchStanding } from '../../core/packet';
	import type { Answered } from '../packet/form';
	import ReasonDialog from '../packet/ReasonDialog.svelte';
	import { tell } from '../parts/told';
	import ComingIn from './ComingIn.svelte';

	/** Who has and who hasn't, over time, and what is done about those who haven't. */
	let {
		standing,
		days,
		now,
		answered
	}: {
		standing: BatchStanding;
		days: { day: string; sent: number; have: number }[];
		now: string;
		answered: Answered | null;
	} = $props();

	let withdrawing = $state(false);
	const longest = $derived(standing.longest ? daysBetween(standing.longest, now) : 0);
</script>

<h2 class="pb-2 text-[16px]">How it stands</h2>
<p class="pb-2">
	<b class="text-moss">{standing.have}</b> have, <b class="text-thread">{standing.out}</b> haven’t{standing.ended > 0
		? `, ${standing.ended} ended otherwise`
		: ''}.
	{#if standing.out > 0 && longest > 0}<span class="text-quiet"
			>The longest wait is {longest} {longest === 1 ? 'day' : 'days'}.</span
		>{/if}
</p>
{#if days.length > 1}<ComingIn {days} />{/if}
{#if standing.out > 0}
	<div class="flex flex-wrap gap-2 pt-3">
		<form
			method="POST"
			action="?/remind"
			use:enhance={() =>
				async ({ result, update }) => {
					if (result.type === 'success') tell(`${standing.out} are reminded; who was within the hour is left in peace`);
					await update();
				}}
		>
			<button class="button">Remind the {standing.out} who haven’t</button>
		</form>
		<button class="button grave" onclick={() => (withdrawing = true)}>Withdraw what is left…</button>
	</div>
{/if}

<ReasonDialog
	bind:open={withdrawing}
	form="withdraw"
	title="Withdraw what is left"
	text="{standing.out} {standing.out === 1
		? 'packet ends'
		: 'packets end'} for everyone on them. Those who have had one are told, with your reason. This can’t be taken back."
	button="Withdraw {standing.out}"
	{answered}
/>
