<script lang="ts">
	import { DOCUMENT_KINDS, MOST, type DocumentKind, type IdentityAsked } from '../../../core/identity/asked';
	import type { PlanPerson } from '../../../core/packet';
	import { askAlike, type SetPerson } from '../../../core/plan';
	import Check from '../../parts/Check.svelte';
	import Choice from '../../parts/Choice.svelte';
	import Switch from '../../parts/Switch.svelte';
	import type { Bench } from '../bench.svelte';
	import QuestionsAsked from './QuestionsAsked.svelte';

	/** What somebody shows of themselves, besides a code, before anything is shown to them. */
	let { bench, person, set }: { bench: Bench; person: PlanPerson; set: SetPerson } = $props();

	const locked = $derived(bench.isPersonLocked(person.id, 'check'));
	const asked = $derived(person.identity);
	const document = $derived(asked?.document);
	const questions = $derived(asked?.questions);
	const beside = $derived(
		(bench.plan.stops.find((stop) => stop.people.includes(person.id))?.people ?? []).filter((id) => id !== person.id)
	);
	/** dates that are answered before it is their turn, for their day of birth */
	const days = $derived([
		...new Set(
			bench.plan.fields.filter((f) => f.kind === 'date' && f.key !== '' && f.person !== person.id).map((f) => f.key)
		)
	]);

	/** What is asked, changed; nothing asked is none. */
	function ask(change: Partial<IdentityAsked>) {
		const { document, questions, ...rest } = { tries: 3, ...asked, ...change } as IdentityAsked;
		const identity =
			document || questions ? { ...rest, ...(document && { document }), ...(questions && { questions }) } : undefined;
		set('what they show of themselves', { identity }, false);
	}
	const NEW = { kinds: ['passport', 'identity card'] as DocumentKind[], countries: [], bothSides: true, holder: false };

	let countries = $derived((document?.countries ?? []).join(' '));
	const COUNTRY = /^[A-Z]{1,3}$/;

	const numbers = (most: number) => Array.from({ length: most }, (_, i): [string, string] => [`${i + 1}`, `${i + 1}`]);
</script>

<fieldset class="grid gap-3" disabled={locked}>
	<Switch
		label="Shows an identity document"
		on={document !== undefined}
		disabled={locked}
		onturn={(on) => ask({ document: on ? NEW : undefined })}
	/>
	{#if document}
		<div class="grid gap-2 border-s border-hairline ps-3">
			{#each DOCUMENT_KINDS as kind (kind)}
				<Check
					label={kind}
					checked={document.kinds.includes(kind)}
					disabled={locked || (document.kinds.length === 1 && document.kinds[0] === kind)}
					onchange={(on) =>
						ask({
							document: {
								...document,
								kinds: DOCUMENT_KINDS.filter((one) => (one === kind ? on : document.kinds.includes(one)))
							}
						})}
				/>
			{/each}
			<label
				>Issued by <span class="text-quiet">codes of three letters, such as GBR IRL; empty: anybody</span><input
					class="input mt-1 font-mono"
					maxlength="240"
					autocomplete="off"
					spellcheck="false"
					bind:value={countries}
					onchange={() =>
						ask({
							document: {
								...document,
								countries: [...new Set(countries.toUpperCase().split(/[\s,;]+/))].filter((code) => COUNTRY.test(code))
							}
						})}
				/></label
			>
			<Check
				label="both sides"
				checked={document.bothSides}
				onchange={(bothSides) => ask({ document: { ...document, bothSides } })}
			/>
			<Check
				label="a picture of themselves: somebody of the office compares it each time"
				checked={document.holder}
				onchange={(holder) => ask({ document: { ...document, holder } })}
			/>
			{#if days.length > 0}
				<Choice
					label="Date of birth is compared with"
					value={document.born ?? ''}
					options={[['', 'nothing'], ...days.map((key): [string, string] => [key, key])]}
					onchoose={(key) => ask({ document: { ...document, born: key === '' ? undefined : key } })}
				/>
			{/if}
		</div>
	{/if}
	<Switch
		label="Answers what we know of them"
		on={questions !== undefined}
		disabled={locked}
		onturn={(on) => ask({ questions: on ? { asks: [], right: 1 } : undefined })}
	/>
	{#if questions}<QuestionsAsked
			asTemplate={bench.asTemplate}
			{questions}
			onchange={(questions) => ask({ questions })}
		/>
	{/if}
	{#if asked}
		{#if document && questions}
			<Check label="one of the two is enough" checked={asked.either ?? false} onchange={(either) => ask({ either })} />
		{/if}
		<Choice
			label="Tries before somebody of the office looks"
			value={String(asked.tries)}
			options={numbers(MOST.tries)}
			onchoose={(n) => ask({ tries: Number(n) })}
		/>
		<label class="grid gap-1"
			>Not asked again for so many days <span class="text-quiet"
				>empty: asked each time; the settings say how long at most</span
			><input
				class="input w-28!"
				type="number"
				min="1"
				max={MOST.days}
				value={asked.goodFor ?? ''}
				onchange={(e) => {
					const days = Math.round(Number(e.currentTarget.value));
					ask({ goodFor: days >= 1 && days <= MOST.days ? days : undefined });
				}}
			/></label
		>
		{#if beside.length > 0}
			<p>
				<button
					type="button"
					class="button"
					onclick={() => bench.change('ask the same of all at this stop', askAlike(bench.plan, person.id, beside))}
					>Ask the same of everybody at this stop</button
				>
			</p>
		{/if}
	{/if}
</fieldset>
