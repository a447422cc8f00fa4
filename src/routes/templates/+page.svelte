<script lang="ts">
	import ListSearch from '$lib/ui/lists/ListSearch.svelte';
	import Pager from '$lib/ui/lists/Pager.svelte';
	import { enhance } from '$app/forms';
	import { goto } from '$app/navigation';
	import { day, moment } from '$lib/ui/dates';
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
	const usual = (hours: number) =>
		hours < 36 ? `${Math.max(1, Math.round(hours))} h` : `${Math.round(hours / 24)} days`;
</script>

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
			<button
				class="button"
				disabled={joining.length < 2}
				title="Choose two or more in the list"
				onclick={() => void goto(`/templates/join?ids=${joining.join(',')}`)}
				>Join {joining.length > 1 ? joining.length : ''} as one packet…</button
			>
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
		<div class="overflow-x-auto">
			<table class="list">
				<thead
					><tr
						><th><span class="unseen">Choose</span></th><th>Template</th><th>Roles</th><th>Last used</th><th>Used</th
						><th>Usual time</th><th><span class="unseen">Actions</span></th></tr
					></thead
				>
				<tbody>
					{#each data.rows as row (row.id)}
						<tr class={row.id === data.chosen?.id ? 'bg-wash' : 'hover:bg-wash'}>
							<td
								><input
									type="checkbox"
									aria-label="Choose {row.title}"
									disabled={row.version === 0 || data.show === 'bin'}
									value={row.id}
									bind:group={joining}
								/></td
							>
							<td class="max-w-72">
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
							</td>
							<td><Thread thread={row.thread} now={data.now} width={150} /></td>
							<td class="whitespace-nowrap">{row.lastUsedAt ? day(row.lastUsedAt, zone, data.now) : ''}</td>
							<td>{row.uses > 0 ? `${row.uses}×` : ''}</td>
							<td class="whitespace-nowrap">{row.usualHours === null ? '' : usual(row.usualHours)}</td>
							<td
								>{#if row.version > 0 && data.show !== 'bin'}<a
										class="button"
										href="/templates/{row.id}/use"
										aria-label="Use {row.title}">Use</a
									>{/if}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
		{#if data.rows.length === 0}
			<p class="max-w-md py-10 font-serif text-quiet">
				{data.search || data.folder || data.show !== 'all'
					? 'No template is like that.'
					: 'A template is a packet prepared once and used again: its people are roles, its fields stand ready. Make one anew, or from any packet by “Keep as template”.'}
			</p>
		{/if}
		<Pager
			offset={data.offset}
			shown={data.rows.length}
			page={data.page}
			to={(from) => where({ from: String(from) })}
		/>
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
