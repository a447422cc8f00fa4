<script lang="ts">
	import { DOCUMENT, type IntakePage, type Item } from '../../core/intake';
	import { roleName } from '../../core/template';
	import Choice from '../parts/Choice.svelte';
	import Menu from '../parts/Menu.svelte';
	import Ordered from '../parts/Ordered.svelte';
	import { RuleBox, WhenPart } from '../rules';
	import Faults from './Faults.svelte';
	import ItemEditor from './ItemEditor.svelte';
	import type { Making } from './making.svelte';

	/** One page of questions: what stands on it, in order, when it comes, and where it leads. */
	let { making, page }: { making: Making; page: IntakePage } = $props();

	const KIND: Record<Item['is'], string> = {
		field: 'of the document',
		question: 'its own',
		text: 'text',
		people: 'who'
	};
	function called(item: Item): string {
		if (item.is === 'question') return item.question.label;
		if (item.is === 'text') return item.text.split('\n')[0]!.slice(0, 60) || 'A text';
		if (item.is === 'people')
			return item.roles
				.map((role) => making.template.people.find(({ id }) => id === role))
				.map((person) => (person ? roleName(person) : 'a role that is gone'))
				.join(', ');
		const field = making.template.fields.find((one) => one.key === item.key);
		return field?.label || item.key;
	}
	const addable = $derived([
		...making.unasked.slice(0, 30).map((field) => ({
			name: `${field.label || field.key} (of the document)`,
			run: () => making.addItem({ id: making.freshId('asked'), is: 'field' as const, key: field.key })
		})),
		{
			name: 'A question of its own',
			run: () => {
				const id = making.freshId('question');
				const key = id.replaceAll('-', '_');
				making.addItem({
					id,
					is: 'question',
					question: { kind: 'text', key, label: 'Question', required: true, settings: {} }
				});
			}
		},
		{
			name: 'Who takes part',
			run: () => {
				const role = making.template.people.find(({ id, email }) => id !== making.setting.starter && email === '');
				if (role) making.addItem({ id: making.freshId('who'), is: 'people', roles: [role.id] });
			}
		},
		{ name: 'A text', run: () => making.addItem({ id: making.freshId('text'), is: 'text', text: 'Text' }) }
	]);
	const places = $derived([
		...making.setting.pages.filter(({ id }) => id !== page.id).map(({ id, title }): [string, string] => [id, title]),
		[DOCUMENT, 'the document'] as [string, string]
	]);
	const next = $derived(page.next ?? []);
	const setNext = (list: typeof next) => making.setPage(page.id, { next: list.length > 0 ? list : undefined });
</script>

<div class="flex flex-wrap items-end gap-3 pb-3">
	<label class="min-w-0 flex-1"
		>Title of the page<input
			class="input mt-1"
			maxlength="120"
			value={page.title}
			oninput={(event) => making.setPage(page.id, { title: event.currentTarget.value })}
		/></label
	>
	<Menu label="Add…" look="button" entries={addable} />
</div>
<Faults {making} at={page.id} />
{#if page.items.length === 0}<p class="max-w-md py-6 font-serif text-quiet">
		Nothing stands on this page yet. “Add…” asks a question of the document here, or one of its own, or who takes part.
	</p>{/if}
<Ordered
	label="What stands on this page"
	items={page.items}
	name={called}
	look="border-b border-hairline"
	onorder={(ids) =>
		making.setPage(page.id, { items: ids.flatMap((id) => page.items.find((item) => item.id === id) ?? []) })}
>
	{#snippet row(item)}
		{@const here = making.open === item.id}
		{@const wrong = making.faultsAt(item.id).some(({ mild }) => !mild)}
		<button
			type="button"
			class="flex min-h-10 w-full cursor-pointer items-center gap-3 px-3 py-1.5 text-left hover:bg-wash {here
				? 'bg-wash font-semibold'
				: ''}"
			aria-expanded={here}
			onclick={() => (making.open = here ? null : item.id)}
		>
			<span class="min-w-0 flex-1 truncate {wrong ? 'text-brick' : ''}">{called(item)}</span>
			<span class="text-[13px] font-normal text-quiet">{item.when ? 'by rule · ' : ''}{KIND[item.is]}</span>
		</button>
		{#if here}<ItemEditor {making} {item} />{/if}
	{/snippet}
</Ordered>
<div class="grid max-w-xl gap-4 pt-6">
	<WhenPart
		bench={making}
		title="This page comes"
		always="always"
		source={page.when ?? ''}
		check={making.check}
		offered={making.offered}
		onchange={(rule) => making.setPage(page.id, { when: rule })}
	/>
	<fieldset class="grid gap-3">
		<legend class="pb-1">After it comes the next page{next.length > 0 ? ', but:' : ''}</legend>
		{#each next as one, i (i)}
			<div class="grid gap-2 border-l-2 border-hairline pl-3">
				<RuleBox
					bench={making}
					label="where"
					source={one.when}
					check={making.check}
					offered={making.offered}
					onchange={(when) => setNext(next.map((other, j) => (j === i ? { ...other, when } : other)))}
				/>
				<div class="flex flex-wrap items-end gap-3">
					<div class="flex-1">
						<Choice
							label="goes on to"
							value={one.to}
							options={places}
							onchoose={(to) => setNext(next.map((other, j) => (j === i ? { ...other, to } : other)))}
						/>
					</div>
					<button type="button" class="plain" onclick={() => setNext(next.filter((_other, j) => j !== i))}
						>Take off</button
					>
				</div>
			</div>
		{/each}
		<p class="flex flex-wrap gap-3">
			<button type="button" class="button" onclick={() => setNext([...next, { when: '', to: DOCUMENT }])}
				>Another way by rule</button
			>
			<button type="button" class="button grave" onclick={() => making.removePage(page.id)}>Remove the page</button>
		</p>
	</fieldset>
</div>
