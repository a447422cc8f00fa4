<script lang="ts">
	import Choice from '../parts/Choice.svelte';
	import { asksSomebody, kindOf, KINDS } from '../../core/field';
	import { EVERYBODY, SENDER, type Field } from '../../core/packet';
	import type { Bench } from './bench.svelte';
	import { personChoices } from './person-choices';
	import { changeQuestion, giveTo, shownAt } from './field-edits';
	import { ownerName, weaveOf } from './weave';

	/** All fields as a list: sorted, filtered, chosen, edited many at once. What can be done on the pages can be done here. */
	let { bench, ongo }: { bench: Bench; ongo: (id: string) => void } = $props();

	type Column = 'place' | 'label' | 'kind' | 'person';
	const COLUMNS: [Column, string][] = [
		['label', 'Label'],
		['kind', 'Kind'],
		['person', 'Whose'],
		['place', 'Page']
	];
	const plan = $derived(bench.plan);
	let sort = $state<Column>('place');
	let down = $state(false);
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
	const byColumn: Record<Column, (a: Field, b: Field) => number> = {
		place: (a, b) => {
			const [x, y] = [shownAt(plan, a), shownAt(plan, b)];
			return papers.indexOf(a.paper) - papers.indexOf(b.paper) || a.page - b.page || x.top - y.top || x.left - y.left;
		},
		label: (a, b) => a.label.localeCompare(b.label),
		kind: (a, b) => kindOf(a.kind).name.localeCompare(kindOf(b.kind).name),
		person: (a, b) => ownerName(plan, a.person).localeCompare(ownerName(plan, b.person))
	};
	const rows = $derived(
		plan.fields
			.filter(
				(f) =>
					(person === '' || (f.person ?? 'nobody') === person) &&
					(kind === '' || f.kind === kind) &&
					(page === '' || `${f.paper} ${f.page}` === page) &&
					`${f.label} ${f.key}`.toLowerCase().includes(words.trim().toLowerCase())
			)
			.sort((a, b) => (byColumn[sort](a, b) || byColumn.place(a, b)) * (down ? -1 : 1))
	);
	const all = $derived(rows.length > 0 && rows.every((f) => bench.fieldIds.includes(f.id)));

	function by(column: Column) {
		down = sort === column ? !down : false;
		sort = column;
	}
	function mark(id: string, on: boolean) {
		bench.chooseFields(on ? [...bench.fieldIds, id] : bench.fieldIds.filter((one) => one !== id));
	}
</script>

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
		<p class="self-center text-quiet" role="status">{rows.length} of {plan.fields.length}</p>
	</div>
	<div class="relative min-h-0 flex-1 overflow-auto">
		<table class="w-full border-collapse text-[14px] leading-5">
			<thead class="sticky top-0 z-10 bg-linen">
				<tr>
					<th class="w-7 px-2 py-1 text-left"
						><input
							type="checkbox"
							aria-label="Choose all that are listed"
							checked={all}
							onchange={(e) => bench.chooseFields(e.currentTarget.checked ? rows.map((f) => f.id) : [])}
						/></th
					>
					{#each COLUMNS as [column, name] (column)}
						<th
							class="px-1.5 py-1 text-left font-semibold"
							aria-sort={sort === column ? (down ? 'descending' : 'ascending') : 'none'}
							><button class="plain p-0! whitespace-nowrap" onclick={() => by(column)}
								>{name}{sort === column ? (down ? ' ↓' : ' ↑') : ''}</button
							></th
						>
					{/each}
					<th class="px-1.5 py-1 text-left font-semibold" title="Must be answered">Needed</th>
				</tr>
			</thead>
			<tbody>
				{#each rows as field (field.id)}
					{@const chosen = bench.fieldIds.includes(field.id)}
					{@const asked = asksSomebody(field)}
					<tr class="border-b border-hairline {chosen ? 'bg-wash' : ''}" data-row={field.id}>
						<td class="px-2"
							><input
								type="checkbox"
								aria-label="Choose {field.label}, page {field.page + 1}"
								checked={chosen}
								onchange={(e) => mark(field.id, e.currentTarget.checked)}
							/></td
						>
						<td class="px-0.5"
							><input
								class="w-full min-w-24 border-0 bg-transparent px-1 py-1"
								aria-label="Label of {kindOf(field.kind).name} on page {field.page + 1}"
								maxlength="200"
								value={field.label}
								onchange={(e) =>
									bench.change(
										'label',
										changeQuestion(plan, [field.id], (f) => ({ ...f, label: e.currentTarget.value }))
									)}
							/></td
						>
						<td class="px-1.5 whitespace-nowrap">{kindOf(field.kind).name}</td>
						<td class="px-0.5">
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
						</td>
						<td class="px-1.5"
							><button
								class="plain p-0! underline"
								aria-label="Go to {field.label} on page {field.page + 1}"
								onclick={() => {
									bench.chooseFields([field.id]);
									ongo(field.id);
								}}>{field.page + 1}</button
							></td
						>
						<td class="px-1.5 text-center"
							><input
								type="checkbox"
								aria-label="{field.label} must be answered"
								disabled={!asked}
								checked={field.required}
								onchange={(e) =>
									bench.change(
										'needed',
										changeQuestion(plan, [field.id], (f) => ({ ...f, required: e.currentTarget.checked }))
									)}
							/></td
						>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if plan.fields.length === 0}
			<p class="p-4 text-quiet">
				Nothing is placed yet. Press a letter of the tray, or take what was found on the pages.
			</p>
		{:else if rows.length === 0}<p class="p-4 text-quiet">No field is like that.</p>{/if}
	</div>
</section>
