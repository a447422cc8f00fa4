<script lang="ts">
	import Check from '../../parts/Check.svelte';
	import Choice from '../../parts/Choice.svelte';
	import type { Column, Order } from '../../parts/table/columns';
	import Table from '../../parts/table/Table.svelte';
	import { asksSomebody, kindOf, KINDS } from '../../../core/field';
	import { ASKED, EVERYBODY, SENDER, type Field } from '../../../core/packet';
	import type { Bench } from '../bench.svelte';
	import { personChoices } from '../person-choices';
	import { changeQuestion, giveTo, shownAt } from '../../../core/plan';
	import { ownerName, weaveOf } from '../weave';

	/** All fields as a list: sorted, filtered, chosen, edited many at once. What can be done on the pages can be done here. */
	let { bench, ongo }: { bench: Bench; ongo: (id: string) => void } = $props();

	const plan = $derived(bench.plan);
	let order = $state<Order | null>({ key: 'place', down: false });
	let person = $state('');
	let kind = $state('');
	let page = $state('');
	let words = $state('');

	const papers = $derived(plan.papers.map((p) => p.id));
	const sheetNames = $derived(
		plan.papers.flatMap((p) =>
			p.pages.map((_, i) => ({ key: `${p.id} ${i}`, name: `${plan.papers.length > 1 ? `${p.name}, ` : ''}${i + 1}` }))
		)
	);
	/** where it stands: paper, page, line, and place in the line */
	const place = (field: Field) => {
		const { top, left } = shownAt(plan, field);
		return [papers.indexOf(field.paper), field.page, top, left];
	};
	const byPlace = (a: Field, b: Field) => {
		const [x, y] = [place(a), place(b)];
		return x.map((one, i) => one - y[i]!).find((gap) => gap !== 0) ?? 0;
	};
	const COLUMNS: Column<Field>[] = [
		{ key: 'label', name: 'Label', by: (field) => field.label.toLowerCase(), fixed: true, look: 'min-w-32' },
		{ key: 'kind', name: 'Kind', by: (field) => kindOf(field.kind).name, look: 'whitespace-nowrap' },
		{ key: 'person', name: 'Whose', by: (field) => ownerName(plan, field.person) },
		{ key: 'place', name: 'Page', by: (field) => papers.indexOf(field.paper) * 10_000 + field.page },
		{ key: 'needed', name: 'Needed', by: (field) => (field.required ? 0 : 1) }
	];
	const rows = $derived(
		plan.fields
			.filter(
				(f) =>
					f.paper !== ASKED &&
					(person === '' || (f.person ?? 'nobody') === person) &&
					(kind === '' || f.kind === kind) &&
					(page === '' || `${f.paper} ${f.page}` === page) &&
					`${f.label} ${f.key}`.toLowerCase().includes(words.trim().toLowerCase())
			)
			.sort(byPlace)
	);
</script>

{#snippet cell(field: Field, key: string)}
	{@const asked = asksSomebody(field)}
	{#if key === 'label'}<textarea
			class="block w-full min-w-28 resize-none border-0 bg-transparent px-1 py-0.5 [field-sizing:content]"
			rows="1"
			aria-label="Label of {kindOf(field.kind).name} on page {field.page + 1}"
			maxlength="200"
			value={field.label}
			onkeydown={(e) => {
				// a label has one line, however it is broken here
				if (e.key !== 'Enter') return;
				e.preventDefault();
				e.currentTarget.blur();
			}}
			onchange={(e) =>
				bench.change(
					'label',
					changeQuestion(plan, [field.id], (f) => ({ ...f, label: e.currentTarget.value.replace(/\s+/g, ' ') }))
				)}></textarea>
	{:else if key === 'kind'}{kindOf(field.kind).name}
	{:else if key === 'person'}
		<span class="flex items-center gap-1"
			><span class="h-4 w-2 shrink-0" style:background={weaveOf(plan, field.person)}></span>
			{#if asked}<Choice
					label="Whose is {field.label}"
					unseen
					narrow
					plain
					value={field.person ?? ''}
					options={[['', 'nobody'], ...personChoices(bench.actors), [SENDER, 'me']]}
					onchoose={(whose) => bench.change('give to somebody', giveTo(plan, [field.id], whose || null))}
				/>{:else}<span class="text-quiet">everybody</span>{/if}</span
		>
	{:else if key === 'place'}<button
			class="plain p-0! underline"
			aria-label="Go to {field.label} on page {field.page + 1}"
			onclick={() => {
				bench.chooseFields([field.id]);
				ongo(field.id);
			}}>{field.page + 1}</button
		>
	{:else}<Check
			label="{field.label} must be answered"
			unseen
			disabled={!asked}
			checked={field.required}
			onchange={(required) =>
				bench.change(
					'needed',
					changeQuestion(plan, [field.id], (f) => ({ ...f, required }))
				)}
		/>{/if}
{/snippet}

<section aria-label="All fields" class="flex h-full flex-col">
	<div class="grid grid-cols-2 gap-1.5 border-b border-hairline px-3 py-2 text-[14px]">
		<input
			class="input col-span-2"
			type="search"
			placeholder="Label or key"
			aria-label="Label or key"
			bind:value={words}
		/>
		<Choice
			label="Whose"
			unseen
			narrow
			value={person}
			options={[
				['', 'anybody’s'],
				...personChoices(bench.actors),
				[SENDER, 'yours'],
				[EVERYBODY, 'everybody’s'],
				['nobody', 'nobody’s']
			]}
			onchoose={(whose) => (person = whose)}
		/>
		<Choice
			label="Kind"
			unseen
			narrow
			value={kind}
			options={[['', 'every kind'], ...KINDS.map((one): [string, string] => [one.kind, one.name])]}
			onchoose={(one) => (kind = one)}
		/>
		<Choice
			label="Page"
			unseen
			narrow
			value={page}
			options={[['', 'every page'], ...sheetNames.map((one): [string, string] => [one.key, `page ${one.name}`])]}
			onchoose={(one) => (page = one)}
		/>
		<p class="self-center text-quiet" role="status">
			{rows.length} of {plan.fields.filter((f) => f.paper !== ASKED).length}
		</p>
	</div>
	<div class="min-h-0 flex-1 px-3 pt-2">
		<Table
			label="All fields"
			columns={COLUMNS}
			{rows}
			name={(field) => `${field.label}, page ${field.page + 1}`}
			{cell}
			bind:order
			bind:chosen={() => bench.fieldIds, (ids) => bench.chooseFields(ids ?? [])}
			height="calc(100dvh - 330px)"
			estimate={40}
		>
			{#snippet act(ids)}<span class="text-[14px] text-quiet"
					>{ids.length === 1 ? 'Its settings are' : 'What they have in common is'} at the right.</span
				>{/snippet}
			{#snippet empty()}
				<p class="py-4 text-quiet">
					{plan.fields.length === 0
						? 'Nothing is placed yet. Press a letter of the tray, or take what was found on the pages.'
						: 'No field is like that.'}
				</p>
			{/snippet}
		</Table>
	</div>
</section>
