<script lang="ts">
	import Known from '../../people/Known.svelte';
	import Check from '../../parts/Check.svelte';
	import More from '../../parts/More.svelte';
	import Choice from '../../parts/Choice.svelte';
	import Switch from '../../parts/Switch.svelte';
	import { DUTIES, isAddress, type Duty, type PersonLock, type PlanPerson } from '../../../core/packet';
	import { acts, comesBefore, stopOf } from '../../../core/route';
	import type { Bench } from '../bench.svelte';
	import { roleName } from '../../../core/template';
	import CheckPart from './CheckPart.svelte';
	import IdentityPart from './IdentityPart.svelte';
	import { changePerson, removePerson, type Change } from '../../../core/plan';
	import { LetterPart } from '../sending';
	import LocksPart from '../LocksPart.svelte';
	import NotaryPart from './NotaryPart.svelte';
	import ReachPart from './ReachPart.svelte';
	import StopPart from './StopPart.svelte';

	let { bench, person }: { bench: Bench; person: PlanPerson } = $props();

	const plan = $derived(bench.plan);
	const stop = $derived(stopOf(plan, person.id));
	const namers = $derived(bench.actors.filter((one) => comesBefore(plan, one.id, person.id)));
	const set = (name: string, change: Change<PlanPerson>, burst = true) =>
		bench.change(name, changePerson(plan, person.id, change), burst);

	const LOCK_NAMES: [PersonLock, string][] = [
		['name', 'the name'],
		['address', 'the address'],
		['duty', 'the duty'],
		['check', 'how they prove who they are'],
		['removal', 'whether they take part']
	];
</script>

<h2 class="pb-3 text-[16px]">
	{person.name || roleName(person)}
	<span class="text-[14px] font-normal text-quiet">stop {stop + 1} of {plan.stops.length}</span>
</h2>
<div class="grid gap-3">
	{#if bench.asTemplate}
		<label
			>Role <span class="text-quiet">who this is, whoever it will be</span><input
				id="person-role"
				class="input mt-1"
				maxlength="80"
				autocomplete="off"
				value={person.role ?? ''}
				oninput={(e) => set('role', { role: e.currentTarget.value })}
			/></label
		>
		<Check
			label="may stay empty"
			checked={person.optional ?? false}
			onchange={(optional) => set('may stay empty', { optional }, false)}
		/>
	{:else if person.role}<p class="-mt-2 text-quiet">{person.role}</p>{/if}
	{#if namers.length > 0}
		<Choice
			label="Named by"
			value={person.namedBy ?? ''}
			options={[
				['', bench.asTemplate ? 'whoever sends it' : 'me, here'],
				...namers.map((one): [string, string] => [one.id, `${one.name || roleName(one)}, on finishing`])
			]}
			onchoose={(by) =>
				set('who names them', by === '' ? { namedBy: undefined } : { name: '', email: '', namedBy: by }, false)}
		/>
	{/if}
	{#if person.namedBy === undefined}
		<Known
			label={bench.asTemplate ? 'Always this person' : 'Name'}
			id="person-name"
			readonly={bench.isPersonLocked(person.id, 'name')}
			takes={!bench.isPersonLocked(person.id, 'address')}
			placeholder={bench.asTemplate ? 'empty: named when it is used' : ''}
			value={person.name}
			onname={(name) => set('name', { name })}
			onperson={({ name, email }) => set('who it is', { name, email }, false)}
		/>
		<label
			>E-mail<input
				id="person-email"
				class="input mt-1"
				type="email"
				maxlength="254"
				autocomplete="off"
				readonly={bench.isPersonLocked(person.id, 'address')}
				value={person.email}
				oninput={(e) => set('e-mail', { email: e.currentTarget.value })}
			/></label
		>
		{#if person.email !== '' && !isAddress(person.email.trim())}<p class="wrong -mt-2">
				That can't be an e-mail address yet.
			</p>{/if}
	{/if}
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
	<Choice
		label="Duty"
		disabled={bench.isPersonLocked(person.id, 'duty')}
		value={person.duty}
		options={DUTIES.map((d) => [d, d])}
		onchoose={(duty) =>
			set('duty', { duty: duty as Duty, ...(person.notary && duty !== 'notarises' && { notary: undefined }) }, false)}
	/>
	{#if person.duty === 'notarises'}<NotaryPart {bench} {person} {set} />{/if}
	<StopPart {bench} {person} />
	<ReachPart {bench} {person} {set} />
	{#if acts(person.duty) && person.duty !== 'notarises'}
		<CheckPart {bench} {person} {set} />
		<Switch
			label="May sign on paper"
			on={person.ink === true}
			onturn={(on) => set('signing on paper', { ink: on ? true : undefined }, false)}
		/>
		<More label="Shows who they are" look="" open={person.identity !== undefined}>
			<IdentityPart {bench} {person} {set} />
		</More>
	{/if}
	<More label="A letter of their own" look="" open={person.message !== undefined || person.subject !== undefined}>
		<div class="grid gap-3">
			<LetterPart
				{bench}
				of={person.name || roleName(person)}
				subject={person.subject ?? ''}
				message={person.message ?? ''}
				onchange={(change) => set('letter', change)}
			/>
		</div>
	</More>
	{#if bench.asTemplate}
		<LocksPart
			names={LOCK_NAMES}
			locked={person.locked ?? []}
			onchange={(locked) => set('what a sender may change', { locked }, false)}
		/>
	{/if}
	<p class="pt-3">
		<button
			class="button grave"
			disabled={bench.isPersonLocked(person.id, 'removal')}
			onclick={() => {
				bench.change('take a person out', removePerson(plan, person.id));
				bench.chooseFields([]);
				bench.person = null;
			}}>Take off the route</button
		>
	</p>
</div>
