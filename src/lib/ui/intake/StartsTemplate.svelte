<script lang="ts">
	import type { Plan } from '../../core/packet';
	import { openRoles, roleName } from '../../core/template';
	import Choice from '../parts/Choice.svelte';

	/** Which template is started afterwards, and who of the case takes each of its open roles. */
	let {
		template,
		taken,
		templates,
		people,
		onchange
	}: {
		/** by its id */
		template: string;
		/** who of the case, by role of the template */
		taken: Record<string, string>;
		templates: { id: string; title: string }[];
		/** of the case: id and name */
		people: [string, string][];
		onchange: (template: string, taken: Record<string, string>) => void;
	} = $props();

	let roles = $state.raw<{ id: string; name: string }[]>([]);
	let lost = $state('');
	async function look(id: string) {
		const response = await fetch(`/templates/${id}/plan`).catch(() => null);
		if (id !== template) return;
		const found = response?.ok ? ((await response.json()) as { plan: Plan }) : null;
		lost = found
			? ''
			: response
				? 'This template can’t be used now. Choose another.'
				: 'No connection: its roles can’t be shown.';
		roles = found ? openRoles(found.plan).map((person) => ({ id: person.id, name: roleName(person) })) : [];
	}
	$effect(() => void look(template));
	const gone = $derived(!templates.some(({ id }) => id === template));
</script>

<Choice
	label="Template"
	value={template}
	options={[
		...(gone ? [[template, 'one that is not in use now'] as [string, string]] : []),
		...templates.map(({ id, title }): [string, string] => [id, title])
	]}
	onchoose={(id) => onchange(id, {})}
/>
<p class="wrong empty:hidden" role="alert">{lost}</p>
{#each roles as role (role.id)}
	<Choice
		label="{role.name} is"
		value={taken[role.id] ?? ''}
		options={[['', 'nobody of this case'], ...people]}
		onchoose={(from) => {
			const { [role.id]: _before, ...rest } = taken;
			onchange(template, from ? { ...rest, [role.id]: from } : rest);
		}}
	/>
{/each}
<p class="text-[13px] text-quiet">
	Answers go along under the same keys. Where it can’t go by itself, it waits on your Desk as a draft.
</p>
