<script lang="ts">
	import { browser } from '$app/environment';
	import { onMount, untrack } from 'svelte';
	import { kindOf, prefilled, questionOf, senderAnswers, type Answers, type FieldContext } from '../../../core/field';
	import { localeOf, type Plan, type PlanPerson } from '../../../core/packet';
	import { actorsAt, ruleOfNaming, stopOf, toBeNamedBy } from '../../../core/route';
	import { Signing } from '../../signing/signing.svelte';
	import TurnPage from '../../signing/TurnPage.svelte';
	import { rehearsalKeeper, rehearsed } from './rehearsing';

	/** A plan as one of its people will have it. Nothing is written: answers stay in this tab, under the rehearsal's name. */
	let {
		rehearsal,
		data
	}: {
		rehearsal: string;
		data: {
			plan: Plan;
			person: PlanPerson;
			now: string;
			sender: { name: string; email: string };
			organisation: { name: string; zone: string };
		};
	} = $props();
	const { plan, person, now } = untrack(() => data);
	const zone = untrack(() => data.organisation.zone);
	const draft = untrack(() => rehearsal);
	const locale = localeOf(plan);
	const context: FieldContext = { person, now, zone, locale };
	const start: Answers = senderAnswers(plan, {
		...context,
		person: { ...untrack(() => data.sender), organisation: untrack(() => data.organisation.name) }
	});
	const before = browser ? rehearsed(draft) : { answers: {}, finished: [] };
	let finished = $state(before.finished.includes(person.id));
	let asText = $state(false);
	let busy = $state(false);
	let wrong = $state('');

	const signing = new Signing(
		rehearsalKeeper(
			draft,
			plan,
			person.id,
			() => context,
			start,
			() => (finished = true)
		),
		{
			papers: plan.papers,
			fields: plan.fields,
			answers: { ...start, ...before.answers },
			saved: prefilled(plan, person.id, context),
			savedAt: null,
			me: person,
			naming: toBeNamedBy(plan, person.id).map(({ id, role = 'the next person', duty }) => ({
				id,
				role,
				duty,
				when: ruleOfNaming(plan, person.id, id)
			})),
			locale,
			zone,
			now
		}
	);
	const next = plan.stops
		.slice(stopOf(plan, person.id))
		.flatMap((_, i) => actorsAt(plan, i + stopOf(plan, person.id)))
		.filter((p) => p.id !== person.id);
	const after =
		next.length === 0
			? 'After them everyone gets the sealed copy.'
			: `After them: ${next.map((p) => `${p.name || p.role} ${p.duty}`).join(', then ')}.`;

	/** before that nothing would come of a press */
	let awake = $state(false);
	onMount(() => (awake = true));
	function sample() {
		for (const { id } of signing.naming)
			signing.names[id] = { name: 'Lucia Marchetti', email: 'l.marchetti@post.example', note: '' };
		for (const field of signing.open) {
			const made = kindOf(field.kind).sample(field, context, questionOf(signing.fields, field));
			if (made) signing.give([field.id], made);
		}
	}
	/** answers can call up more questions, so it goes on until none is left or none can be made */
	function fillIn() {
		for (let round = 0, left = -1; round < 10 && signing.open.length !== left; round++) {
			left = signing.open.length;
			sample();
		}
	}
	async function finish() {
		busy = true;
		wrong = (await signing.finish()) ?? '';
		busy = false;
		if (wrong === '') parent.postMessage({ rehearsed: person.id }, location.origin);
	}
</script>

<svelte:head><title>Rehearsal as {person.name}: {plan.title}</title></svelte:head>
<header class="flex min-h-[72px] flex-wrap items-center gap-3 border-b border-hairline bg-sheet px-4 py-2 sm:px-6">
	<div class="min-w-0 flex-1">
		<h1 class="truncate text-[18px] leading-7">{plan.title || 'Untitled'}</h1>
		<p class="text-[14px] leading-[18px] text-quiet">
			as {person.name || 'somebody without a name'}, who {person.duty}
		</p>
	</div>
	{#if !finished}<button class="button" aria-pressed={asText} onclick={() => (asText = !asText)}
			>{asText ? 'See the pages' : 'Read as text'}</button
		><button class="button" disabled={!awake} onclick={fillIn}>Fill in sample answers</button>{/if}
</header>
{#if finished}
	<main id="main" class="mx-auto max-w-2xl px-5 py-12 text-[17px] leading-7">
		<h2 class="pb-2 text-xl">{person.name} is through</h2>
		<p role="status">{after} Nothing has been sent.</p>
	</main>
{:else}
	<TurnPage
		{signing}
		papers={plan.papers}
		paperUrl={(paper) => `/papers/${paper.digest}`}
		name={person.name}
		duty={person.duty}
		{zone}
		{after}
		{busy}
		{wrong}
		{asText}
		readingUrl={(paper) => `/papers/${paper.digest}/reading`}
		onfinish={finish}
	/>
{/if}
