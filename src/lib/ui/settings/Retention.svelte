<script lang="ts">
	import { enhance } from '$app/forms';
	import { untrack } from 'svelte';
	import { ruleInWords, type RetentionRule } from '../../core/keeping';
	import Check from '../parts/Check.svelte';
	import Choice from '../parts/Choice.svelte';
	import Suggested, { among } from '../parts/Suggested.svelte';

	/** The rules of how long something is kept: each as a sentence, and a form that makes one or changes one. */
	let {
		rules,
		templates,
		folders,
		types,
		owner,
		answered,
		done
	}: {
		rules: RetentionRule[];
		templates: { id: string; title: string }[];
		folders: string[];
		types: string[];
		owner: boolean;
		/** what was refused, as it was entered */
		answered: { say: string; rule: Partial<Record<keyof RetentionRule, unknown>> | undefined } | null;
		done: boolean;
	} = $props();

	const NEW: RetentionRule = {
		id: '',
		name: '',
		by: 'type',
		of: '',
		years: 6,
		from: 'end',
		key: '',
		yearEnd: true,
		then: 'review'
	};
	let rule = $state<RetentionRule>(untrack(() => ({ ...NEW, ...((answered?.rule as Partial<RetentionRule>) ?? {}) })));
	$effect(() => {
		if (done) rule = { ...NEW };
	});
	const ofFolders = $derived(folders.map((one): [string, string] => [one, one]));
	const ofTemplates = $derived(templates.map(({ id, title }): [string, string] => [id, title]));
	const ofWhat = (one: Pick<RetentionRule, 'by' | 'of'>) =>
		one.by === 'template'
			? `Made from “${templates.find(({ id }) => id === one.of)?.title ?? 'a template'}”`
			: one.by === 'folder'
				? `In the folder ${one.of}`
				: `Of the type ${one.of}`;
</script>

<section aria-labelledby="retention" class="pt-8">
	<h2 id="retention" class="border-b border-hairline pb-1 text-[17px]">How long it is kept</h2>
	<p class="max-w-2xl py-2 text-quiet">
		A template’s rule goes before a type’s, that before a folder’s. What no rule is for is kept for as long as nobody
		bins it. When the time is over it stands under <a class="text-thread underline" href="/records/due"
			>Records, To go</a
		>, or goes by itself.
	</p>
	<ul class="max-w-3xl">
		{#each rules as one (one.id)}
			<li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hairline py-2">
				<span class="min-w-64 flex-1"
					><b>{one.name}</b><br /><span class="text-[14px]">{ruleInWords(one, ofWhat(one))}</span></span
				>
				{#if owner}
					<button type="button" class="button" onclick={() => (rule = { ...one })}>Change…</button>
					<form method="POST" action="?/drop" use:enhance>
						<input type="hidden" name="id" value={one.id} /><button class="button">Take it out</button>
					</form>
				{/if}
			</li>
		{:else}<li class="py-2 font-serif text-quiet">There is no rule yet.</li>{/each}
	</ul>
	{#if owner}
		<form
			method="POST"
			action="?/rule"
			class="grid max-w-xl gap-3 pt-4"
			use:enhance={() =>
				({ update }) =>
					update({ reset: false })}
		>
			<h3 class="text-[15px]">{rule.id ? 'Change the rule' : 'A new rule'}</h3>
			<input type="hidden" name="id" value={rule.id} />
			<label class="grid gap-1"
				>What it is called<input
					class="input"
					name="name"
					maxlength="120"
					required
					placeholder="Engagements, 6 years after the season"
					bind:value={rule.name}
				/></label
			>
			<div class="flex flex-wrap gap-3">
				<Choice
					label="For packets"
					name="by"
					value={rule.by}
					options={[
						['type', 'of a type'],
						['folder', 'in a folder'],
						['template', 'made from a template']
					]}
					onchoose={(by) => (rule = { ...rule, by: by as RetentionRule['by'], of: '' })}
				/>
				{#if rule.by === 'type'}<Suggested
						label="Type"
						name="of"
						value={rule.of}
						most={80}
						offered={among(types)}
						oninput={(words) => (rule.of = words)}
						ontake={(offer) => (rule.of = offer.words)}
					/>
				{:else}<Choice
						label={rule.by === 'folder' ? 'Folder' : 'Template'}
						name="of"
						value={rule.of}
						options={[['', 'choose one'], ...(rule.by === 'folder' ? ofFolders : ofTemplates)]}
						onchoose={(of) => (rule.of = of)}
					/>{/if}
			</div>
			<div class="flex flex-wrap items-end gap-3">
				<label class="grid gap-1"
					>Years<input
						class="input w-24"
						type="number"
						name="years"
						min="0"
						max="100"
						required
						bind:value={rule.years}
					/></label
				>
				<Choice
					label="after"
					name="from"
					value={rule.from}
					options={[
						['end', 'it has ended'],
						['term', 'the end of its term'],
						['date', 'a day among its answers']
					]}
					onchoose={(from) => (rule.from = from as RetentionRule['from'])}
				/>
				{#if rule.from === 'date'}<label class="grid gap-1"
						>answered under the key<input
							class="input"
							name="key"
							maxlength="60"
							required
							bind:value={rule.key}
						/></label
					>{/if}
			</div>
			<Check
				label="To the end of that year"
				name="yearEnd"
				checked={rule.yearEnd}
				onchange={(on) => (rule.yearEnd = on)}
			/>
			<Choice
				label="Then"
				name="then"
				value={rule.then}
				options={[
					['review', 'somebody looks at it'],
					['dispose', 'it goes by itself']
				]}
				onchoose={(then) => (rule.then = then as RetentionRule['then'])}
			/>
			<p class="{answered ? 'wrong' : 'text-moss'} empty:hidden" role="status">
				{answered ? answered.say : done ? 'It holds. What is here already is being reckoned anew.' : ''}
			</p>
			<p class="flex gap-2">
				<button class="button primary">{rule.id ? 'Change it' : 'Add it'}</button>
				{#if rule.id}<button type="button" class="button" onclick={() => (rule = { ...NEW })}>Leave it</button>{/if}
			</p>
		</form>
	{/if}
</section>
