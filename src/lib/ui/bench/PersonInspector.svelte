<script lang="ts">
	import { DUTIES, isAddress, type Duty, type PlanPerson } from '../../core/packet';
	import { moved, stopOf } from '../../core/route';
	import type { Bench } from './bench.svelte';
	import { changePerson, removePerson } from './edits';

	let { bench, person }: { bench: Bench; person: PlanPerson } = $props();

	const plan = $derived(bench.plan);
	const stop = $derived(stopOf(plan, person.id));
	const alone = $derived((plan.stops[stop]?.people.length ?? 1) === 1);
	const last = $derived(plan.stops.length - 1);
	const set = (name: string, change: Partial<PlanPerson>, burst = true) =>
		bench.change(name, changePerson(plan, person.id, change), burst);

	function duty(value: Duty) {
		set('duty', { duty: value }, false);
	}
	function earlier() {
		bench.change('order', alone ? moved(plan, person.id, stop - 1, 'before') : moved(plan, person.id, stop, 'before'));
	}
	function later() {
		bench.change(
			'order',
			alone ? moved(plan, person.id, stop + 2, 'before') : moved(plan, person.id, stop + 1, 'before')
		);
	}
</script>

<h2 class="pb-3 text-[16px]">
	{person.name || 'Somebody'}
	<span class="text-[14px] font-normal text-quiet">stop {stop + 1} of {plan.stops.length}</span>
</h2>
<div class="grid gap-3">
	<label
		>Name<input
			id="person-name"
			class="input mt-1"
			maxlength="200"
			autocomplete="off"
			value={person.name}
			oninput={(e) => set('name', { name: e.currentTarget.value })}
		/></label
	>
	<label
		>E-mail<input
			id="person-email"
			class="input mt-1"
			type="email"
			maxlength="254"
			autocomplete="off"
			value={person.email}
			oninput={(e) => set('e-mail', { email: e.currentTarget.value })}
		/></label
	>
	{#if person.email !== '' && !isAddress(person.email.trim())}<p class="wrong -mt-2">
			That can't be an e-mail address yet.
		</p>{/if}
	{#each [['organisation', 'Organisation'], ['jobTitle', 'Job title']] as const as [what, name] (what)}
		<label
			>{name}<input
				class="input mt-1"
				maxlength="200"
				autocomplete="off"
				value={person[what] ?? ''}
				oninput={(e) => set(name.toLowerCase(), { [what]: e.currentTarget.value })}
			/></label
		>
	{/each}
	<label
		>Duty<select class="input mt-1" value={person.duty} onchange={(e) => duty(e.currentTarget.value as Duty)}
			>{#each DUTIES as d (d)}<option>{d}</option>{/each}</select
		></label
	>
	<fieldset>
		<legend>Order</legend>
		<p class="flex flex-wrap gap-2 pt-1">
			<button class="button" disabled={stop === 0 && alone} onclick={earlier}>Earlier</button>
			<button class="button" disabled={stop === last && alone} onclick={later}>Later</button>
			<button
				class="button"
				disabled={stop === 0}
				onclick={() => bench.change('order', moved(plan, person.id, stop - 1, 'beside'))}>Beside the one before</button
			>
		</p>
	</fieldset>
	<p class="pt-3">
		<button
			class="button grave"
			onclick={() => {
				bench.change('take a person out', removePerson(plan, person.id));
				bench.chooseFields([]);
				bench.person = null;
			}}>Take off the route</button
		>
	</p>
</div>
