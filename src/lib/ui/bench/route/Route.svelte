<script lang="ts">
	import { Check, Plus } from '@lucide/svelte';
	import { acts, doneWord, moved, stopOf } from '../../../core/route';
	import type { PlanPerson } from '../../../core/packet';
	import Seats from '../../parts/Seats.svelte';
	import type { Bench } from '../bench.svelte';
	import { hasFinished } from '../correcting';
	import { addMyself, addPerson } from '../../../core/plan';
	import { weave } from '../weave';

	/**
	 * The thread at the top of the Bench: who does what, in which order. Choosing a person means: what is placed now is
	 * theirs. People are dragged to another stop: onto it, to stand beside those there, or before it, for a stop of their own.
	 */
	let { bench }: { bench: Bench } = $props();

	const plan = $derived(bench.plan);
	const place = (id: string) => plan.people.findIndex((p) => p.id === id);
	const isChosen = (id: string) => (bench.chosen.what === 'person' ? bench.chosen.id === id : bench.person === id);
	const me = $derived(bench.office.sender);
	const amHere = $derived(plan.people.some((p) => p.email.trim().toLowerCase() === me.email.toLowerCase()));
	const locked = $derived(bench.isLocked('people'));

	function add() {
		const added = addPerson(plan);
		bench.change('add a person', added.plan);
		bench.choosePerson(added.person);
		// the name is what comes next
		setTimeout(
			() => document.querySelector<HTMLInputElement>(bench.asTemplate ? '#person-role' : '#person-name')?.focus(),
			30
		);
	}

	function addMe() {
		const added = addMyself(plan, me);
		bench.change('add myself', added.plan);
		bench.choosePerson(added.person);
	}

	function put(person: string, to: number, how: 'before' | 'beside') {
		if (how === 'beside' && stopOf(plan, person) === to) return;
		bench.change('order', moved(plan, person, to, how));
	}

	/** Alt with an arrow moves whoever is in focus along the route; upwards, beside the one before. */
	function step(event: KeyboardEvent, person: string) {
		if (!event.altKey) return;
		const at = stopOf(plan, person);
		const alone = plan.stops[at]?.people.length === 1;
		if (event.key === 'ArrowLeft' && (at > 0 || !alone)) put(person, alone ? at - 1 : at, 'before');
		else if (event.key === 'ArrowRight' && (at < plan.stops.length - 1 || !alone))
			put(person, alone ? at + 2 : at + 1, 'before');
		else if (event.key === 'ArrowUp' && at > 0) put(person, at - 1, 'beside');
		else return;
		event.preventDefault();
		event.stopPropagation();
		const button = `[data-person="${person}"]`;
		setTimeout(() => document.querySelector<HTMLElement>(button)?.focus(), 30);
	}
</script>

{#snippet head(i: number)}
	{@const stop = plan.stops[i]!}
	{@const people = stop.people.flatMap((id) => plan.people.find((p) => p.id === id) ?? [])}
	{@const copyOnly = people.every((p) => !acts(p.duty))}
	{@const chosen = people.some((p) => isChosen(p.id))}
	<svg class="absolute top-0 left-0 h-3.5 w-full overflow-visible" aria-hidden="true">
		<line x1="16" x2="100%" y1="7" y2="7" stroke="var(--hollow)" stroke-width="2" stroke-dasharray="2 4" />
		{#if copyOnly}<line x1="8" x2="8" y1="0" y2="14" stroke="var(--line)" stroke-width="3" />
		{:else if stop.when}<path
				d="M8 0 15 7 8 14 1 7Z"
				fill={chosen ? 'var(--thread)' : 'var(--sheet)'}
				stroke="var(--thread)"
				stroke-width="2"
			/>
		{:else}<circle
				cx="8"
				cy="7"
				r="6"
				fill={chosen ? 'var(--thread)' : 'var(--sheet)'}
				stroke="var(--thread)"
				stroke-width="2"
			/>{/if}
	</svg>
	{#if stop.anyOne || stop.when}<span
			class="absolute top-0 left-5 max-w-36 truncate bg-sheet px-1 text-[12px] leading-3.5 text-quiet"
			aria-hidden="true"
			>{stop.anyOne ? 'any one' : ''}
			<span class="font-mono">{stop.when ?? ''}</span></span
		>{/if}
{/snippet}
{#snippet seat(person: PlanPerson)}
	<button
		class="flex min-w-32 items-stretch gap-2 rounded-sm border px-1.5 py-1 text-left {isChosen(person.id)
			? 'border-thread bg-wash'
			: 'border-transparent hover:border-hairline'}"
		aria-pressed={isChosen(person.id)}
		data-person={person.id}
		onkeydown={(event) => step(event, person.id)}
		onclick={() => bench.choosePerson(person.id)}
	>
		<span class="w-2 shrink-0" style:background={weave(place(person.id))}></span>
		<span class="min-w-0">
			<span class="block max-w-44 truncate text-[14px] leading-5 font-semibold"
				>{person.name || person.role || 'No name yet'}</span
			>
			<span class="block text-[13px] leading-4 text-quiet"
				>{#if hasFinished(bench.correcting, person.id)}<Check class="inline text-moss" size={13} aria-hidden="true" />
					has {doneWord(person.duty)}{:else}{person.duty}{/if}</span
			>
		</span>
	</button>
{/snippet}
{#snippet tail()}
	<svg class="block h-3.5 w-6" width="24" aria-hidden="true"
		><circle cx="8" cy="7" r="5" fill="none" stroke="var(--hollow)" stroke-width="1.5" stroke-dasharray="2 2" /></svg
	>
	{#if !locked}
		<p class="flex items-center gap-1 pt-1.5 whitespace-nowrap">
			<button class="button" onclick={add}
				><Plus size={15} aria-hidden="true" />
				{plan.people.length === 0
					? bench.asTemplate
						? 'First role'
						: 'Who signs first'
					: bench.asTemplate
						? 'Next role'
						: 'Somebody next'}</button
			>
			{#if !amHere && !bench.asTemplate}<button class="plain" onclick={addMe}>Myself</button>{/if}
		</p>
	{/if}
{/snippet}

<div class="min-w-0 flex-1 overflow-x-auto px-1 pt-2.5">
	<Seats
		label="Route"
		across
		stops={plan.stops.map((stop, i) => ({
			id: stop.id,
			items: stop.people.flatMap((id) => plan.people.find((p) => p.id === id) ?? []),
			name: `Stop ${i + 1} of ${plan.stops.length}${stop.when ? ', opens by a rule' : ''}${stop.anyOne ? ', any one is enough' : ''}`
		}))}
		name={(person) => person.name || person.role || 'No name yet'}
		disabled={(person) => locked || hasFinished(bench.correcting, person.id)}
		stopLook="relative shrink-0 pr-2"
		seatsLook="flex gap-1 pt-[18px]"
		{head}
		{seat}
		{tail}
		onput={put}
	/>
</div>
