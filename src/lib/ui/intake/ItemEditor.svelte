<script lang="ts">
	import type { Item } from '../../core/intake';
	import { roleName } from '../../core/template';
	import Check from '../parts/Check.svelte';
	import { WhenPart } from '../rules';
	import Faults from './Faults.svelte';
	import type { Making } from './making.svelte';
	import QuestionEditor from './QuestionEditor.svelte';

	/** One thing on a page, open to be changed. */
	let { making, item }: { making: Making; item: Item } = $props();

	const field = $derived(
		item.is === 'field'
			? making.template.fields.find((one) => one.key === item.key && one.person === making.setting.starter)
			: undefined
	);
	const roles = $derived(
		making.template.people.filter(
			(person) => person.id !== making.setting.starter && !(person.name !== '' && person.locked?.includes('name'))
		)
	);
	const put = (change: object) => making.setItem(item.id, (one) => ({ ...one, ...change }) as Item);
	function choose(role: string, on: boolean) {
		if (item.is !== 'people') return;
		const chosen = making.template.people
			.map(({ id }) => id)
			.filter((id) => (id === role ? on : item.roles.includes(id)));
		if (chosen.length > 0) put({ roles: chosen });
	}
</script>

<div class="grid gap-4 px-3 pt-2 pb-4">
	{#if item.is === 'question'}<QuestionEditor {making} {item} />
	{:else if item.is === 'field'}
		<p class="text-quiet">
			{field
				? `Asked here instead of on the document, where “${field.label}” stands filled in.`
				: 'The document has no such question for this role any more.'}
		</p>
	{:else if item.is === 'text'}
		<label
			>Text<textarea
				class="input mt-1 h-28"
				maxlength="4000"
				value={item.text}
				oninput={(event) => put({ text: event.currentTarget.value })}></textarea></label
		>
		<p class="text-[13px] text-quiet">**bold**, lists with “- ”, links as [words](https://…)</p>
	{:else}
		<fieldset class="grid gap-2">
			<legend class="pb-1">Whom the visitor names here</legend>
			{#each roles as person (person.id)}
				<Check
					label={roleName(person)}
					checked={item.roles.includes(person.id)}
					onchange={(on) => choose(person.id, on)}
				/>
			{/each}
		</fieldset>
		<p class="text-[13px] text-quiet">
			A role whose stop opens by a rule is asked for only where the rule holds; one that may stay empty is offered.
		</p>
	{/if}
	<WhenPart
		bench={making}
		title="There"
		always="always"
		source={item.when ?? ''}
		check={making.check}
		offered={making.offered}
		onchange={(rule) => put({ when: rule })}
	/>
	<Faults {making} at={item.id} />
	<p>
		<button type="button" class="button grave" onclick={() => making.removeItem(item.id)}>Take it off the page</button>
	</p>
</div>
