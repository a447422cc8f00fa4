<script lang="ts">
	import Choice from '../../parts/Choice.svelte';
	import type { Snippet } from 'svelte';
	import { numberShown } from '../../../core/field';
	import { localeOf, LOCALES, type PlanLock } from '../../../core/packet';
	import { doneWord } from '../../../core/route';
	import type { Bench } from '../bench.svelte';
	import { hasFinished, isFixed } from '../correcting';
	import FieldsInspector from './FieldsInspector.svelte';
	import { withSubject } from '../../../core/plan';
	import { LetterPart } from '../sending';
	import LocksPart from '../LocksPart.svelte';
	import { PersonInspector } from '../route';
	import { SendingPart } from '../sending';

	/** Whatever is chosen: fields, a person, or the packet itself. Shows only what applies. */
	let { bench, onrepeat, more }: { bench: Bench; onrepeat: () => void; more?: Snippet } = $props();

	const PLAN_LOCK_NAMES: [PlanLock, string][] = [
		['people', 'who takes part, and the order'],
		['message', 'the letters'],
		['deadline', 'the time'],
		['sending', 'reminders and what signers may do'],
		['fields', 'the fields'],
		['papers', 'the documents']
	];
	const names = new Intl.DisplayNames('en-GB', { type: 'language' });

	const plan = $derived(bench.plan);
	const chosen = $derived(bench.chosen);
	const person = $derived(chosen.what === 'person' ? plan.people.find((p) => p.id === chosen.id) : undefined);
	const fields = $derived(plan.fields.filter((f) => bench.fieldIds.includes(f.id)));
</script>

<section aria-label="Inspector" class="relative h-full overflow-y-auto px-4 py-3.5 text-[14px] leading-5">
	{#if fields.length > 0}
		{@const fixed = fields.some((f) => isFixed(bench.correcting, f))}
		{#if fixed}<p class="pb-3">Somebody has finished who has seen this; it stays as it is.</p>{/if}
		<fieldset disabled={fixed} class="contents"><FieldsInspector {bench} {fields} {onrepeat} /></fieldset>
	{:else if person}
		{@const done = hasFinished(bench.correcting, person.id)}
		{#if done}<p class="pb-3">{person.name} has {doneWord(person.duty)}; that part stays as it is.</p>{/if}
		<fieldset disabled={done} class="contents"><PersonInspector {bench} {person} /></fieldset>
	{:else}
		<h2 class="pb-3 text-[16px]">{bench.asTemplate ? 'The template' : 'The packet'}</h2>
		<div class="grid grid-cols-[minmax(0,1fr)] gap-3">
			<label
				>Title<input
					id="packet-title"
					class="input mt-1"
					maxlength="200"
					value={plan.title}
					oninput={(e) => bench.change('title', { ...plan, title: e.currentTarget.value }, true)}
				/></label
			>
			{#if bench.isLocked('message')}
				<div>
					<p>Message to everyone <span class="text-quiet">set by the template</span></p>
					<p class="whitespace-pre-wrap text-quiet">{plan.message || 'none'}</p>
				</div>
			{:else}
				<LetterPart
					{bench}
					of="everyone"
					subject={plan.subject ?? ''}
					message={plan.message}
					onchange={({ subject = plan.subject ?? '', message = plan.message }) =>
						bench.change('message', withSubject({ ...plan, message }, subject), true)}
				/>
			{/if}
			<Choice
				label="Numbers and dates as in"
				value={localeOf(plan)}
				options={LOCALES.map((locale) => [
					locale,
					`${names.of(locale)}, ${numberShown('1234.5', { decimals: 2 }, locale)}`
				])}
				onchoose={(locale) => bench.change('language', { ...plan, locale: locale as (typeof LOCALES)[number] })}
			/>
			<SendingPart {bench} />
			{#if bench.asTemplate}
				<LocksPart
					names={PLAN_LOCK_NAMES}
					locked={plan.locked ?? []}
					onchange={(locked) => bench.change('what a sender may change', { ...plan, locked })}
				/>
			{/if}
		</div>
		<div class="flex flex-wrap gap-2 pt-4">{@render more?.()}</div>
		<p class="pt-4 text-quiet">Choose a person on the thread, or a field on the page, to see what belongs to it.</p>
	{/if}
</section>
