<script lang="ts">
	import { untrack } from 'svelte';
	import { ENDINGS, type Ending, type Filter } from '../../core/packet';
	import Choice from '../parts/Choice.svelte';
	import Day from '../parts/Day.svelte';
	import Over from '../parts/Over.svelte';

	/**
	 * Which packets are listed, or counted: by template, folder, sender, type, how long they wait, how they ended. All at once. What there
	 * is to choose from is fetched when somebody opens it, or when what is chosen wants its name.
	 */
	let {
		filter,
		of = 'out',
		hint = 'Filter the list',
		onfilter
	}: {
		filter: Filter;
		/** 'sent': both what is out and what has ended */
		of?: 'out' | 'ended' | 'sent';
		hint?: string;
		onfilter: (filter: Filter) => void;
	} = $props();

	interface Choices {
		templates: { id: string; title: string }[];
		folders: string[];
		senders: { id: string; name: string }[];
		types: string[];
	}
	let { templates, folders, senders, types } = $state.raw<Choices>({
		templates: [],
		folders: [],
		senders: [],
		types: []
	});
	let open = $state(false);
	let wrong = $state('');

	const wanted = $derived(open || filter.template !== undefined || filter.sender !== undefined);
	$effect(() => {
		if (wanted) untrack(() => void fetchChoices());
	});
	async function fetchChoices() {
		const response = await fetch('/lists').catch(() => null);
		wrong = response?.ok ? '' : 'What there is to choose from could not be fetched. Open this again.';
		if (response?.ok) ({ templates, folders, senders, types } = (await response.json()) as Choices);
	}

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
			filter.days && `waiting ${filter.days} days or longer`,
			filter.type && `of the type ${filter.type}`,
			filter.how,
			filter.from && `ended from ${filter.from}`,
			filter.to && `ended until ${filter.to}`
		].filter(Boolean)
	);
</script>

<Over
	bind:open
	label={chosen.length > 0 ? `Filter: ${chosen.join(', ')}` : 'Filter'}
	{hint}
	called={chosen.length > 0 ? null : hint}
	look="chip cursor-pointer"
>
	<div class="grid gap-3">
		{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
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
		{#if of !== 'out'}
			<Choice
				label="Type"
				value={filter.type ?? ''}
				options={[['', 'any'], ...types.map((one): [string, string] => [one, one])]}
				onchoose={(type) => onfilter(type ? { ...filter, type } : without('type'))}
			/>
		{/if}
		{#if of === 'ended'}
			<Choice
				label="How it ended"
				value={filter.how ?? ''}
				options={[['', 'in any way'], ...ENDINGS.map((one): [string, string] => [one, one])]}
				onchoose={(how) => onfilter(how ? { ...filter, how: how as Ending } : without('how'))}
			/>
			<div class="flex flex-wrap gap-3">
				<Day
					label="Ended from"
					value={filter.from ?? ''}
					onchoose={(from) => onfilter(from ? { ...filter, from } : without('from'))}
				/>
				<Day
					label="until"
					value={filter.to ?? ''}
					onchoose={(to) => onfilter(to ? { ...filter, to } : without('to'))}
				/>
			</div>
		{:else if of === 'out'}<Choice
				label="Waiting"
				value={filter.days ? String(filter.days) : ''}
				options={[['', 'however long'], ...DAYS.map((n): [string, string] => [String(n), `${n} days or longer`])]}
				onchoose={(days) => onfilter(days ? { ...filter, days: Number(days) } : without('days'))}
			/>{/if}
		<p>
			<button
				type="button"
				class="button"
				disabled={chosen.length === 0}
				onclick={() => onfilter(filter.put ? { put: filter.put } : {})}>No filter</button
			>
		</p>
	</div>
</Over>
