<script lang="ts">
	import { numberShown } from '../../core/field';
	import { localeOf, LOCALES } from '../../core/packet';
	import type { Bench } from './bench.svelte';
	import FieldsInspector from './FieldsInspector.svelte';
	import PersonInspector from './PersonInspector.svelte';

	/** Whatever is chosen: fields, a person, or the packet itself. Shows only what applies. */
	let { bench, onrepeat }: { bench: Bench; onrepeat: () => void } = $props();

	const names = new Intl.DisplayNames('en-GB', { type: 'language' });

	const plan = $derived(bench.plan);
	const chosen = $derived(bench.chosen);
	const person = $derived(chosen.what === 'person' ? plan.people.find((p) => p.id === chosen.id) : undefined);
	const fields = $derived(plan.fields.filter((f) => bench.fieldIds.includes(f.id)));
</script>

<section aria-label="Inspector" class="relative h-full overflow-y-auto px-4 py-3.5 text-[14px] leading-5">
	{#if fields.length > 0}
		<FieldsInspector {bench} {fields} {onrepeat} />
	{:else if person}
		<PersonInspector {bench} {person} />
	{:else}
		<h2 class="pb-3 text-[16px]">The packet</h2>
		<div class="grid gap-3">
			<label
				>Title<input
					id="packet-title"
					class="input mt-1"
					maxlength="200"
					value={plan.title}
					oninput={(e) => bench.change('title', { ...plan, title: e.currentTarget.value }, true)}
				/></label
			>
			<label
				>Message to everyone<textarea
					class="input mt-1 h-32"
					maxlength="4000"
					value={plan.message}
					oninput={(e) => bench.change('message', { ...plan, message: e.currentTarget.value }, true)}></textarea></label
			>
			<label
				>Numbers and dates as in<select
					class="input mt-1"
					value={localeOf(plan)}
					onchange={(e) =>
						bench.change('language', { ...plan, locale: e.currentTarget.value as (typeof LOCALES)[number] })}
					>{#each LOCALES as locale (locale)}<option value={locale}
							>{names.of(locale)}, {numberShown('1234.5', { decimals: 2 }, locale)}</option
						>{/each}</select
				></label
			>
			<fieldset>
				<legend>Time to complete</legend>
				<p class="flex items-center gap-2 pt-1">
					<label class="flex items-center gap-2"
						><input
							type="checkbox"
							checked={plan.days !== null}
							onchange={(e) => bench.change('deadline', { ...plan, days: e.currentTarget.checked ? 14 : null })}
						/> ends after</label
					>
					<input
						class="input w-16!"
						type="number"
						min="1"
						max="730"
						aria-label="Days to complete"
						disabled={plan.days === null}
						value={plan.days ?? ''}
						onchange={(e) => {
							const days = Math.round(e.currentTarget.valueAsNumber);
							if (days >= 1 && days <= 730) bench.change('deadline', { ...plan, days });
							else e.currentTarget.value = String(plan.days ?? '');
						}}
					/>
					days
				</p>
			</fieldset>
		</div>
		<p class="pt-5 text-quiet">Choose a person on the thread, or a field on the page, to see what belongs to it.</p>
	{/if}
</section>
