<script lang="ts">
	import { DUTIES, isAddress, LOCALES, type Duty, type PersonLock, type PlanPerson } from '../../core/packet';
	import { comesBefore, moved, stopOf } from '../../core/route';
	import type { Bench } from './bench.svelte';
	import { roleName } from '../../core/template';
	import { changePerson, removePerson } from './edits';
	import LetterPart from './LetterPart.svelte';
	import LocksPart from './LocksPart.svelte';

	let { bench, person }: { bench: Bench; person: PlanPerson } = $props();

	const plan = $derived(bench.plan);
	const stop = $derived(stopOf(plan, person.id));
	const alone = $derived((plan.stops[stop]?.people.length ?? 1) === 1);
	const namers = $derived(bench.actors.filter((one) => comesBefore(plan, one.id, person.id)));
	const last = $derived(plan.stops.length - 1);
	const set = (name: string, change: Partial<PlanPerson>, burst = true) =>
		bench.change(name, changePerson(plan, person.id, change), burst);

	const LOCK_NAMES: [PersonLock, string][] = [
		['name', 'the name'],
		['address', 'the address'],
		['duty', 'the duty'],
		['removal', 'whether they take part']
	];
	const names = new Intl.DisplayNames('en-GB', { type: 'language' });

	/** A letter of one's own holds as long as something stands in it. */
	function letter({ subject = person.subject ?? '', message = person.message ?? '' }) {
		const { subject: _subject, message: _message, ...rest } = person;
		const next: PlanPerson = { ...rest, ...(subject && { subject }), ...(message && { message }) };
		bench.change('letter', { ...plan, people: plan.people.map((p) => (p.id === person.id ? next : p)) }, true);
	}
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
		<label class="flex items-center gap-2"
			><input
				type="checkbox"
				checked={person.optional ?? false}
				onchange={(e) => set('may stay empty', { optional: e.currentTarget.checked }, false)}
			/> may stay empty</label
		>
	{:else if person.role}<p class="-mt-2 text-quiet">{person.role}</p>{/if}
	{#if namers.length > 0}
		<label
			>Named by<select
				class="input mt-1"
				value={person.namedBy ?? ''}
				onchange={(e) => {
					const { namedBy: _was, ...rest } = person;
					const by = e.currentTarget.value;
					const next = by === '' ? rest : { ...rest, name: '', email: '', namedBy: by };
					bench.change('who names them', { ...plan, people: plan.people.map((p) => (p.id === person.id ? next : p)) });
				}}
				><option value="">{bench.asTemplate ? 'whoever sends it' : 'me, here'}</option>
				{#each namers as one (one.id)}<option value={one.id}>{one.name || roleName(one)}, on finishing</option
					>{/each}</select
			></label
		>
	{/if}
	{#if person.namedBy === undefined}
		<label
			>{bench.asTemplate ? 'Always this person' : 'Name'}<input
				id="person-name"
				class="input mt-1"
				maxlength="200"
				autocomplete="off"
				readonly={bench.isPersonLocked(person.id, 'name')}
				placeholder={bench.asTemplate ? 'empty: named when it is used' : ''}
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
	<label
		>Duty<select
			class="input mt-1"
			disabled={bench.isPersonLocked(person.id, 'duty')}
			value={person.duty}
			onchange={(e) => duty(e.currentTarget.value as Duty)}
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
	<details open={person.message !== undefined || person.subject !== undefined}>
		<summary class="cursor-pointer pb-2">A letter of their own</summary>
		<div class="grid gap-3">
			<LetterPart
				{bench}
				of={person.name || roleName(person)}
				subject={person.subject ?? ''}
				message={person.message ?? ''}
				onchange={letter}
			/>
			<label
				>Numbers and dates in it as in<select
					class="input mt-1"
					value={person.locale ?? ''}
					onchange={(e) => {
						const { locale: _was, ...rest } = person;
						const locale = e.currentTarget.value as (typeof LOCALES)[number] | '';
						bench.change('language', {
							...plan,
							people: plan.people.map((p) => (p.id === person.id ? (locale === '' ? rest : { ...rest, locale }) : p))
						});
					}}
					><option value="">the packet</option>{#each LOCALES as locale (locale)}<option value={locale}
							>{names.of(locale)}</option
						>{/each}</select
				></label
			>
		</div>
	</details>
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
