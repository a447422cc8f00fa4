<script lang="ts">
	import Files from '$lib/ui/parts/Files.svelte';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import { enhance } from '$app/forms';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import { Dialog } from '$lib/ui/parts/dialog';
	import DialogBox from '$lib/ui/parts/DialogBox.svelte';
	import { untrack } from 'svelte';
	import { Paged } from '$lib/ui/lists/paged.svelte';
	import type { Column } from '$lib/ui/parts/table/columns';
	import Table from '$lib/ui/parts/table/Table.svelte';

	let { data, form } = $props();
	const CHIPS = [
		['all', 'All'],
		['ready', 'Ready'],
		['twice', 'Which one?'],
		['faulty', 'Faulty'],
		['left out', 'Left out'],
		['gone', 'Gone']
	] as const;
	const TONE: Record<string, string> = {
		ready: 'text-moss',
		twice: 'text-copper',
		faulty: 'text-brick',
		'left out': 'text-quiet',
		gone: 'text-thread'
	};
	const said = $derived(form?.say ?? '');
	let sending = $state(false);
	let chosen = $state<string[]>([]);

	type Row = (typeof data.list.rows)[number];
	const paged = new Paged<Row>(
		`/batches/${untrack(() => data.id)}/rows`,
		untrack(() => data.list),
		untrack(() => data.query)
	);
	$effect(() => void paged.begin(data.list, data.query));
	const COLUMNS = $derived<Column<Row>[]>([
		// as the spreadsheet counts, whose first line are the headings
		{ key: 'n', name: 'Row', fixed: true },
		...data.columns.map((column, i) => ({
			key: String(i),
			name: column || `Column ${i + 1}`,
			look: 'max-w-56 break-words'
		})),
		{ key: 'state', name: 'State', fixed: true, look: 'break-words' },
		{ key: 'do', name: 'What to do', unseen: true, fixed: true }
	]);
	const stays = $derived((data.counts['twice'] ?? 0) + (data.counts['faulty'] ?? 0) + (data.counts['left out'] ?? 0));

	$effect(() => keepCurrent((id) => id === ''));
</script>

{#snippet deed(what: string, says: string, n: number)}
	<button class="plain" name="do" value={what} aria-label="{says}, row {n + 2}">{says}</button>
{/snippet}

{#snippet cell(row: Row, key: string)}
	{#if key === 'n'}<span class="text-quiet">{row.n + 2}</span>
	{:else if key === 'state'}<span class={TONE[row.is]}
			>{#if row.packet}<a class="text-thread" href="/packets/{row.packet}">{row.said}</a>{:else}{row.said}{/if}</span
		>
	{:else if key === 'do'}
		{#if !data.running && row.is !== 'gone'}
			<form method="POST" action="?/row" use:enhance class="flex gap-1 whitespace-nowrap">
				<input type="hidden" name="n" value={row.n} />
				{#if row.is === 'twice'}{@render deed('this one', 'This one', row.n)}{/if}
				{#if row.out}{@render deed('put back', 'Put back', row.n)}
				{:else if row.is === 'ready' || row.is === 'twice'}{@render deed('take out', 'Take out', row.n)}{/if}
			</form>
		{/if}
	{:else}
		{@const i = Number(key)}
		<span class={row.column === i ? 'bg-[#a3392b1a]' : ''}
			>{row.cells[i]}{#if row.column === i && row.cells[i] === ''}<span class="text-brick">empty</span>{/if}</span
		>
	{/if}
{/snippet}

<svelte:head><title>{data.name} · Batches · Pellum</title></svelte:head>
<main id="main" class="flex min-h-[calc(100dvh-46px)] flex-wrap">
	<section aria-labelledby="batch" class="min-w-0 flex-[3_1_640px] px-6 py-5">
		<div class="flex flex-wrap items-start gap-x-6 gap-y-2 pb-3">
			<div class="min-w-0 flex-1">
				<h1 id="batch" class="text-[19px]">{data.name}</h1>
				<p class="text-quiet">
					each row a packet of <a class="text-thread underline" href="/templates?id={data.template}">{data.title}</a>
				</p>
			</div>
			{#if data.running}
				<p role="status" class="self-center">
					<progress class="align-middle" max={data.wanted} value={data.sent} aria-label="Sent so far"></progress>
					{data.sent} of {data.wanted} sent; you can leave this page.
				</p>
			{:else}
				<button class="button primary" disabled={data.counts['ready'] === 0} onclick={() => (sending = true)}
					>{data.counts['ready'] === 0 ? 'Nothing to send' : `Send ${data.counts['ready']}…`}</button
				>
				<a class="button" href="/batches/{data.id}/sheet" download>The sheet back, as CSV</a>
			{/if}
		</div>
		<p class="wrong empty:hidden" role="alert">{said}</p>
		<nav aria-label="Rows" class="flex flex-wrap gap-1.5 pb-3">
			{#each CHIPS as [state, name] (state)}
				<a
					class="chip no-underline"
					aria-current={data.list.show === state ? 'true' : undefined}
					href="?show={encodeURIComponent(state)}">{name} {data.counts[state]}</a
				>
			{/each}
		</nav>
		<Table
			label="Rows of the sheet"
			columns={COLUMNS}
			rows={paged.rows}
			id={(row) => row.id}
			name={(row) => `row ${row.n + 2}`}
			{cell}
			total={data.counts[data.list.show]}
			more={paged.next ? () => paged.more() : null}
			bind:chosen={() => (data.running ? undefined : chosen), (rows) => (chosen = rows ?? [])}
			estimate={34}
		>
			{#snippet act(ids)}
				<form
					method="POST"
					action="?/row"
					class="flex gap-2"
					use:enhance={() =>
						async ({ update }) => {
							chosen = [];
							await update();
						}}
				>
					{#each ids as one (one)}<input type="hidden" name="n" value={one} />{/each}
					<button class="button" name="do" value="take out">Take them out</button>
					<button class="button" name="do" value="put back">Put them back</button>
				</form>
			{/snippet}
			{#snippet empty()}<p class="py-8 font-serif text-quiet">No row is like this.</p>{/snippet}
		</Table>
	</section>
	<aside class="min-w-0 flex-[1_1_300px] border-l border-hairline bg-linen px-5 py-5">
		<fieldset disabled={data.running} class="min-w-0">
			<h2 class="pb-2 text-[16px]">Which column is what</h2>
			<form
				method="POST"
				action="?/columns"
				use:enhance={() =>
					({ update }) =>
						update({ reset: false })}
				class="grid gap-2"
				onchange={(event) => event.currentTarget.requestSubmit()}
			>
				{#each data.targets as target (target.id)}
					<Choice
						label="{target.name}{target.needed ? '' : ', may be left'}"
						name={target.id}
						value={data.setting.mapping[target.id]?.toString() ?? ''}
						options={[
							['', 'no column'],
							...data.columns.map((column, i): [string, string] => [i.toString(), column || `Column ${i + 1}`])
						]}
					/>
				{/each}
				<noscript><button class="button">Take these</button></noscript>
			</form>
			<h2 class="pt-6 pb-2 text-[16px]">Only rows where</h2>
			<form
				method="POST"
				action="?/filter"
				use:enhance={() =>
					({ update }) =>
						update({ reset: false })}
				class="grid gap-2"
			>
				<label
					><span class="unseen">Only rows where</span><input
						class="input font-mono"
						name="filter"
						maxlength="2000"
						autocomplete="off"
						placeholder={data.keys[0] ? `${data.keys.at(-1)} = "…"` : ''}
						aria-describedby="filter-help"
						value={data.setting.filter}
					/></label
				>
				<p class="wrong empty:hidden" role="alert">{data.fault}</p>
				<p id="filter-help" class="text-[14px] text-quiet">
					A rule over the columns: <span class="font-mono wrap-anywhere">{data.keys.join(', ')}</span>. Empty lets all
					pass.
				</p>
				<p><button class="button">Filter</button></p>
			</form>
			<h2 class="pt-6 pb-2 text-[16px]">A newer sheet</h2>
			<form method="POST" action="?/again" enctype="multipart/form-data" use:enhance class="grid gap-2">
				<Files label="A newer sheet" takes="CSV" name="sheet" accept=".csv,text/csv" required />
				<p class="text-[14px] text-quiet">
					It takes this one’s place. Who has had theirs is left out; only new rows go.
				</p>
				<p><button class="button">Take it in</button></p>
			</form>
		</fieldset>
	</aside>
</main>

<DialogBox bind:open={sending} place="top-16 left-1/2 w-[460px] -translate-x-1/2">
	<Dialog.Title class="pb-2 font-serif text-lg font-semibold">{data.title}, {data.counts['ready']} times</Dialog.Title>
	<Dialog.Description>
		Each of the {data.counts['ready']} gets a packet of their own, at once.
		{#if data.own}One of them is you.{/if}
		{#if stays > 0}{stays}
			{stays === 1 ? 'row stays' : 'rows stay'} as they are: faulty, undecided, or left out.{/if}
		{#if (data.counts['gone'] ?? 0) > 0}Who has had theirs gets no second one.{/if}
	</Dialog.Description>
	<form
		method="POST"
		action="?/run"
		class="flex gap-2 pt-4"
		use:enhance={() =>
			async ({ update }) => {
				sending = false;
				await update();
			}}
	>
		<button class="button primary">Send {data.counts['ready']} now</button>
		<Dialog.Close class="button" type="button">Not yet</Dialog.Close>
	</form>
</DialogBox>
