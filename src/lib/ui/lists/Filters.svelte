<script lang="ts">
	import type { Filter } from '../../core/packet';
	import Choice from '../parts/Choice.svelte';
	import Over from '../parts/Over.svelte';

	/** Which packets are listed: by template, folder, sender, and how long they wait. All at once. */
	let {
		filter,
		templates,
		folders,
		senders,
		onfilter
	}: {
		filter: Filter;
		templates: { id: string; title: string }[];
		folders: string[];
		senders: { id: string; name: string }[];
		onfilter: (filter: Filter) => void;
	} = $props();

	const DAYS = [3, 7, 14, 30];
	const without = (name: keyof Filter) => {
		const { [name]: _gone, ...rest } = filter;
		return rest;
	};
	const chosen = $derived(
		[
			filter.template && `made from ${templates.find(({ id }) => id === filter.template)?.title ?? 'a template'}`,
			filter.folder !== undefined && (filter.folder === '' ? 'in no folder' : `in ${filter.folder}`),
			filter.sender && `sent by ${senders.find(({ id }) => id === filter.sender)?.name ?? 'somebody'}`,
			filter.days && `waiting ${filter.days} days or longer`
		].filter(Boolean)
	);
</script>

<Over
	label={chosen.length > 0 ? `Filter: ${chosen.join(', ')}` : 'Filter'}
	hint="Filter the list"
	look="chip cursor-pointer"
>
	<div class="grid gap-3">
		<Choice
			label="Made from"
			value={filter.template ?? ''}
			options={[['', 'any template, or none'], ...templates.map(({ id, title }): [string, string] => [id, title])]}
			onchoose={(template) => onfilter(template ? { ...filter, template } : without('template'))}
		/>
		<Choice
			label="Folder"
			value={filter.folder === undefined ? '*' : filter.folder}
			options={[['*', 'any'], ['', 'in none'], ...folders.map((name): [string, string] => [name, name])]}
			onchoose={(folder) => onfilter(folder === '*' ? without('folder') : { ...filter, folder })}
		/>
		<Choice
			label="Sent by"
			value={filter.sender ?? ''}
			options={[['', 'anybody'], ...senders.map(({ id, name }): [string, string] => [id, name])]}
			onchoose={(sender) => onfilter(sender ? { ...filter, sender } : without('sender'))}
		/>
		<Choice
			label="Waiting"
			value={filter.days ? String(filter.days) : ''}
			options={[['', 'however long'], ...DAYS.map((n): [string, string] => [String(n), `${n} days or longer`])]}
			onchoose={(days) => onfilter(days ? { ...filter, days: Number(days) } : without('days'))}
		/>
		<p>
			<button type="button" class="button" disabled={chosen.length === 0} onclick={() => onfilter({})}>No filter</button
			>
		</p>
	</div>
</Over>
