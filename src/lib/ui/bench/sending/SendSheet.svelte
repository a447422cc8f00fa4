<script lang="ts">
	import OneOf from '../../parts/OneOf.svelte';
	import { Dialog } from '../../parts/dialog';
	import Moment from '../../parts/Moment.svelte';
	import DialogBox from '../../parts/DialogBox.svelte';
	import { deadlineAfter, dayIn, momentIn } from '../../../core/calendar';
	import type { PlanPerson } from '../../../core/packet';
	import { actorsAt, acts, dutyVerb } from '../../../core/route';
	import { rightNow } from '../../dates';
	import { post } from '../../post';
	import type { Bench } from '../bench.svelte';
	import LikelyDone from './LikelyDone.svelte';

	/** All that will happen, in the order it will, and the button that starts it: now, or at a time. */
	let {
		bench,
		zone,
		holidays,
		open = $bindable(false),
		onsent
	}: {
		bench: Bench;
		zone: string;
		/** ISO 8601 days on which nobody works, for deadlines in working days */
		holidays: string[];
		open?: boolean;
		onsent: (packet: string | null) => void;
	} = $props();

	let busy = $state(false);
	let wrong = $state('');
	let when = $state<'now' | 'later'>('now');
	/** as the browser's own field gives it: local, without a zone */
	let moment = $state('');
	const plan = $derived(bench.plan);
	const sending = $derived(plan.sending ?? {});
	const stops = $derived(
		plan.stops.map((stop, i) => ({ stop, people: actorsAt(plan, i) })).filter(({ people }) => people.length > 0)
	);
	const copies = $derived(plan.people.filter((p) => !acts(p.duty)));
	const at = $derived(when === 'later' && moment !== '' ? new Date(moment).toISOString() : null);
	const until = $derived(
		plan.days === null
			? null
			: dayIn(zone, deadlineAfter(at ?? rightNow(), plan.days, zone, ...(sending.workingDays ? [holidays] : [])))
	);
	const who = (person: PlanPerson) => person.name || person.role || 'somebody';

	function hears(person: PlanPerson): string {
		const to = `to ${dutyVerb(person.duty)}`;
		const named = plan.people.find((p) => p.id === person.namedBy);
		const name = named && person.name === '' ? `Whoever ${who(named)} names` : who(person);
		switch (person.deliver ?? 'mail') {
			case 'mail':
				return `${name} gets a message${person.email ? ` at ${person.email}` : ''} ${to}.`;
			case 'mail and text':
				return `${name} gets a message at ${person.email} and a text message at ${person.phone ?? ''} ${to}.`;
			case 'text':
				return `${name} gets a text message at ${person.phone ?? ''} ${to}.`;
			case 'link':
				return `You hand ${name} the link ${to}; it is on the packet’s page.`;
			case 'in person': {
				const host = plan.people.find((p) => p.id === person.hostedBy);
				return `${name} does it in front of ${host ? who(host) : 'a host'}.`;
			}
		}
	}
	const proof = (person: PlanPerson) =>
		person.check
			? person.check.by === 'code'
				? ' Your access code is asked of them.'
				: ` A code by ${person.check.by} is asked of them.`
			: '';

	/** the first whose link is handed on by hand: copying it is what puts the packet out */
	const handed = $derived(stops[0]?.people.find((person) => person.deliver === 'link'));
	async function copyLink(packet: string, person: string) {
		const got = await post<{ link: string }>(`/packets/${packet}/link`, { person }, '');
		if ('link' in got) await navigator.clipboard?.writeText(got.link).catch(() => undefined);
	}

	async function send() {
		busy = true;
		wrong = '';
		if (when === 'now') {
			const done = await bench.ask<{ packet: string }>('send');
			if ('packet' in done) {
				if (handed) await copyLink(done.packet, handed.id);
				onsent(done.packet);
			} else wrong = done.wrong;
		} else if (at === null) wrong = 'Say when it is to go.';
		else {
			const done = await bench.ask<{ sendAt: string }>('schedule', { at });
			if ('sendAt' in done) onsent(null);
			else wrong = done.wrong;
		}
		busy = false;
	}
</script>

<DialogBox bind:open onOpenChange={() => (wrong = '')} place="top-16 right-4 max-h-[85dvh] w-[460px] overflow-y-auto">
	<Dialog.Title class="font-serif text-lg font-semibold">{plan.title}</Dialog.Title>
	<Dialog.Description class="pb-3 text-quiet">This is what will happen, in this order.</Dialog.Description>
	<ol class="border-l-2 border-dotted border-line pl-4">
		{#each stops as { stop, people }, i (stop.id)}
			<li class="pb-3">
				<p class="font-semibold">
					{i === 0 ? (at ? momentIn(zone, at) : 'Now') : `When stop ${i} is done`}{#if stop.when}, only if
						<span class="font-mono text-[13px] break-all">{stop.when}</span>{/if}
				</p>
				{#each people as person (person.id)}<p class="break-words">{hears(person)}{proof(person)}</p>{/each}
				{#if stop.anyOne && people.length > 1}<p>Any one of them is enough.</p>{/if}
			</li>
		{/each}
		<li class="pb-3">
			<p class="font-semibold">When everyone is done</p>
			<p>
				{plan.papers.length === 1 ? 'The document is' : `${plan.papers.length} documents are`} sealed. Everybody{copies.length >
				0
					? `, also ${copies.map(who).join(' and ')},`
					: ''} gets the sealed {plan.papers.length === 1 ? 'copy' : 'copies'} and the evidence sheet.
				{#if sending.term}The agreement holds for {sending.term.months}
					{sending.term.months === 1 ? 'month' : 'months'}{sending.term.notice === null
						? ''
						: `; you are told ${sending.term.notice} days before it ends`}.{/if}
			</p>
		</li>
		<li>
			<p class="font-semibold">{until ? `At the end of ${until}` : 'No end'}</p>
			<p>
				{until
					? 'It ends by itself if somebody is still missing.'
					: 'It stays out until everyone is done or you withdraw it.'}
				{#if until && sending.warning !== undefined}Who still has it is warned {sending.warning}
					{sending.warning === 1 ? 'day' : 'days'} before.{/if}
				{#if sending.reminders}Who has it is reminded after {sending.reminders.after}
					{sending.reminders.after === 1 ? 'day' : 'days'}{sending.reminders.every === null
						? ''
						: `, then every ${sending.reminders.every}`}, at most {sending.reminders.most}
					{sending.reminders.most === 1 ? 'time' : 'times'}.{/if}
			</p>
		</li>
	</ol>
	{#if open}<LikelyDone {bench} {zone} />{/if}
	<div class="flex flex-wrap items-center gap-x-4 gap-y-2 pt-4">
		<OneOf
			label="When it goes"
			unseen
			bind:value={when}
			options={[
				['now', 'now'],
				['later', 'at a time']
			]}
		/>
		{#if when === 'later'}<Moment label="When it is to go" value={moment} onchoose={(next) => (moment = next)} />{/if}
	</div>
	<p class="wrong pt-3 empty:hidden" role="alert">{wrong}</p>
	<p class="flex gap-2 pt-4">
		<button class="button primary" disabled={busy} onclick={send}
			>{busy
				? 'One moment…'
				: when === 'later'
					? 'Let it go then'
					: handed
						? `Send, and copy ${who(handed)}’s link`
						: 'Send now'}</button
		><Dialog.Close class="button">Not yet</Dialog.Close>
	</p>
</DialogBox>
