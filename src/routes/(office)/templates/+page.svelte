<script lang="ts">
	import ListSearch from '$lib/ui/lists/ListSearch.svelte';
	import { enhance } from '$app/forms';
	import { goto } from '$app/navigation';
	import { day, moment } from '$lib/ui/dates';
	import { lengthInWords } from '$lib/core/pace';
	import { KeptList } from '$lib/ui/lists/kept.svelte';
	import type { Column, Order } from '$lib/ui/parts/table/columns';
	import Table from '$lib/ui/parts/table/Table.svelte';
	import Thread from '$lib/ui/thread/Thread.svelte';
	import TemplatePreview from '$lib/ui/templates/TemplatePreview.svelte';

	let { data, form } = $props();
	const zone = $derived(data.organisation.zone);
	const SHOWN = [
		['all', 'All'],
		['mine', 'Mine'],
		['shared', 'Shared with me'],
		['bin', 'Bin']
	] as const;
	let joining = $state<string[]>([]);
	const where = (change: Record<string, string>) => {
		const now = { show: data.show, folder: data.folder, q: data.search, ...change };
		return `?${Object.entries(now)
			.filter(([, value]) => value !== '')
			.map(([key, value]) => `${key}=${encodeURIComponent(value)}`)
			.join('&')}`;
	};
	type Row = (typeof data.rows)[number];
	let order = $state<Order | null>(null);
	const kept = new KeptList('templates', () => data.settings);
	const COLUMNS: Column<Row>[] = [
		{ key: 'title', name: 'Template', by: (row) => row.title, fixed: true, look: 'max-w-72' },
		{ key: 'roles', name: 'Roles' },
		{ key: 'last', name: 'Last used', by: (row) => row.lastUsedAt, look: 'whitespace-nowrap' },
		{ key: 'uses', name: 'Used', by: (row) => row.uses },
		{ key: 'usual', name: 'Usual time', by: (row) => row.usualHours, look: 'whitespace-nowrap' },
		{ key: 'use', name: 'Use', unseen: true, fixed: true }
	];
</script>

{#snippet cell(row: Row, key: string)}
	{#if key === 'title'}
		<a
			href={where({ id: row.id })}
			data-sveltekit-noscroll
			aria-current={row.id === data.chosen?.id}
			class="font-semibold no-underline hover:underline">{row.title}</a
		><br /><span class="text-[13px] text-quiet"
			>{[
				row.folder,
				row.mine ? '' : row.owner,
				row.version === 0 ? 'not in use yet' : `version ${row.version}`,
				row.changing && row.version > 0 ? 'being changed' : ''
			]
				.filter(Boolean)
				.join(' · ')}</span
		>
	{:else if key === 'roles'}<Thread thread={row.thread} now={data.now} width={150} />
	{:else if key === 'last'}{row.lastUsedAt ? day(row.lastUsedAt, zone, data.now) : ''}
	{:else if key === 'uses'}{row.uses > 0 ? `${row.uses}×` : ''}
	{:else if key === 'usual'}{row.usualHours === null ? '' : lengthInWords(row.usualHours / 24)}
	{:else if row.version > 0 && data.show !== 'bin'}<a
			class="button"
			href="/templates/{row.id}/use"
			aria-label="Use {row.title}">Use</a
		>{/if}
{/snippet}

<svelte:head><title>Templates · Pellum</title></svelte:head>
<main id="main" class="flex min-h-[calc(100dvh-46px)] flex-wrap">
	<section aria-labelledby="templates" class="min-w-0 flex-[3_1_640px] px-6 py-5">
		<div class="flex flex-wrap items-end gap-x-6 gap-y-2 pb-2">
			<h1 id="templates" class="text-[19px]">Templates</h1>
			<ListSearch
				label="Search templates"
				placeholder="Title or description"
				value={data.search}
				keep={{ show: data.show }}
			/>
			<form method="POST" action="?/new" class="ml-auto"><button class="button">New template</button></form>
		</div>
		<nav aria-label="Show" class="flex flex-wrap gap-2 pb-3">
			{#each SHOWN as [show, name] (show)}
				<a class="chip" href={where({ show })} aria-current={data.show === show}>{name}</a>
			{/each}
			{#if data.folders.length > 0}
				<span class="w-px bg-hairline" aria-hidden="true"></span>
				{#each data.folders as folder (folder)}
					<a
						class="chip"
						href={where({ folder: data.folder === folder ? '' : folder })}
						aria-current={data.folder === folder}>{folder}</a
					>
				{/each}
			{/if}
		</nav>
		<Table
			label="Templates"
			columns={COLUMNS}
			rows={data.rows}
			name={(row) => row.title}
			{cell}
			bind:order
			bind:chosen={joining}
			hidden={kept.settings.hidden}
			onhide={(hidden) => kept.keep({ hidden })}
			onopen={(row) => void goto(where({ id: row.id }), { noScroll: true, keepFocus: true })}
			current={data.chosen?.id ?? null}
			estimate={54}
		>
			{#snippet act(ids)}
				{@const usable =
					data.show !== 'bin' && ids.every((one) => (data.rows.find((row) => row.id === one)?.version ?? 0) > 0)}
				<button
					class="button"
					disabled={ids.length < 2 || !usable}
					title={usable ? 'Choose two or more' : 'Only templates in use can be joined'}
					onclick={() => void goto(`/templates/join?ids=${ids.join(',')}`)}
					>Join {ids.length > 1 ? ids.length : ''} as one packet…</button
				>
			{/snippet}
			{#snippet empty()}
				<p class="max-w-md py-8 font-serif text-quiet">
					{data.search || data.folder || data.show !== 'all'
						? 'No template is like that.'
						: 'A template is a packet prepared once and used again: its people are roles, its fields stand ready. Make one anew, or from any packet by “Keep as template”.'}
				</p>
			{/snippet}
		</Table>
	</section>
	{#if data.chosen}
		{#key data.chosen.id}
			<TemplatePreview
				chosen={data.chosen}
				offices={data.offices}
				folders={data.folders}
				say={form && 'say' in form ? String(form.say) : ''}
			>
				{#snippet versions()}
					{#each data.chosen!.versions as version (version.version)}
						<li class="flex items-start gap-2 py-1">
							<span class="flex-1"
								><b>{version.version}</b>
								{version.note}<br /><span class="text-[13px] text-quiet">{version.by}, {moment(version.at, zone)}</span
								></span
							>
							{#if data.chosen!.mayChange && version.version !== data.chosen!.version}
								<form method="POST" action="?/bringBack&id={data.chosen!.id}" use:enhance>
									<input type="hidden" name="id" value={data.chosen!.id} /><input
										type="hidden"
										name="version"
										value={version.version}
									/><button class="button">Bring back</button>
								</form>
							{/if}
						</li>
					{/each}
				{/snippet}
			</TemplatePreview>
		{/key}
	{/if}
</main>
