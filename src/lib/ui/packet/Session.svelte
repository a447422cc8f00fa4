<script lang="ts">
	import type { PacketView } from '../../core/packet';
	import { meeting } from '../dates';
	import { STAGE } from '../notary/says';
	import Choice from '../parts/Choice.svelte';
	import Moment from '../parts/Moment.svelte';
	import { saidTo, type Answered } from './form';
	import SmallForm from './SmallForm.svelte';

	/** The session before a notary: when, at what fee, and how far each has come. */
	let {
		session,
		mayAct,
		zone,
		now,
		answered
	}: {
		session: NonNullable<PacketView['session']>;
		mayAct: boolean;
		zone: string;
		now: string;
		answered: Answered | null;
	} = $props();

	let setting = $state(false);
	let starts = $derived(local(session.appointment?.starts ?? tomorrow()));
	let minutes = $derived(String(session.appointment?.minutes ?? 30));

	function tomorrow(): string {
		return `${new Date(Date.parse(now) + 86_400_000).toISOString().slice(0, 10)}T10:00:00Z`;
	}
	/** by the clock of whoever looks, as the part takes it */
	function local(at: string): string {
		const day = new Date(at);
		return new Date(day.getTime() - day.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
	}
</script>

<section class="mb-5 border-s-[3px] border-thread bg-linen px-4 py-3" aria-labelledby="session">
	<h2 id="session" class="text-[16px]">Before the notary {session.notary}</h2>
	<p class="text-[14px]">
		{session.act}{session.fee ? ` · fee ${session.fee}, paid to the notary` : ''}{session.running
			? ' · the session is going on'
			: ''}
	</p>
	<ul class="py-2">
		{#each session.people as one (one.id)}
			<li class="flex flex-wrap gap-x-2">
				<b>{one.name}</b> <span class="text-quiet">{STAGE[one.stage]}</span>
				{#if one.doubt}<span class="w-full text-brick">says that something is wrong: {one.doubt}</span>{/if}
			</li>
		{/each}
	</ul>
	{#if session.open}
		<p class="text-[14px]">
			{session.appointment
				? `Appointment: ${meeting(session.appointment.starts, zone, now)}, ${session.appointment.minutes} minutes.`
				: 'No time is set; they can meet whenever all are there.'}
		</p>
		{#if mayAct}
			{#if setting}
				<SmallForm
					action="?/appoint"
					button="Set it, and write to everybody"
					say={saidTo(answered, 'appoint')}
					ondone={() => (setting = false)}
					onleave={() => (setting = false)}
				>
					<Moment label="Session" value={starts} onchoose={(next) => (starts = next)} />
					<input type="hidden" name="starts" value={new Date(starts).toISOString()} />
					<Choice
						label="Minutes"
						name="minutes"
						value={minutes}
						options={['15', '30', '45', '60', '90'].map((n) => [n, n])}
						onchoose={(n) => (minutes = n)}
					/>
					<p class="text-[14px] text-quiet">The notary works {session.hours}.</p>
				</SmallForm>
			{:else}
				<p class="pt-2">
					<button class="button" onclick={() => (setting = true)}
						>{session.appointment ? 'Set another time…' : 'Set a time…'}</button
					>
				</p>
			{/if}
		{/if}
	{/if}
</section>
