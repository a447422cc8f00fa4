<script lang="ts">
	import { onDestroy } from 'svelte';
	import type { PutAway } from '../../core/packet';
	import Choice from '../parts/Choice.svelte';
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';
	import Menu from '../parts/Menu.svelte';
	import type { MenuEntry } from '../parts/menu';
	import Suggested, { among } from '../parts/Suggested.svelte';
	import Refusals from './Refusals.svelte';
	import { fetchFile, type Wanted } from './download';
	import HoldThese from './HoldThese.svelte';
	import { fileRows, type Deed, type Lying, type Refused } from './filing';

	/** What can be done with the packets that are chosen: put elsewhere, put away, taken back, fetched as one file. */
	let {
		rows,
		lies,
		folders,
		types,
		mayAct,
		ondone
	}: {
		rows: Lying[];
		/** where the list is that they are chosen in */
		lies: PutAway | null;
		folders: string[];
		types: string[];
		mayAct: boolean;
		/** after something has been done to them */
		ondone: () => unknown;
	} = $props();

	let asking = $state<'folder' | 'type' | null>(null);
	let value = $state('');
	let holding = $state(false);
	let busy = $state(false);
	let wrong = $state('');
	let refused = $state.raw<Refused[]>([]);
	/** how far a file is; null: none is being fetched */
	let share = $state<number | null>(null);
	let ending: AbortController | undefined;
	onDestroy(() => ending?.abort());

	async function run(deed: Deed) {
		busy = true;
		wrong = '';
		const came = await fileRows(rows, deed, ondone);
		busy = false;
		refused = came.refused;
		wrong = came.wrong ?? '';
		if (!wrong) asking = null;
	}

	async function fetching(wanted: Omit<Wanted, 'ids'>) {
		ending = new AbortController();
		share = 0;
		wrong = await fetchFile({ ids: rows.map(({ id }) => id), ...wanted }, (now) => (share = now), ending.signal);
		share = null;
	}

	function ask(what: 'folder' | 'type') {
		const now = new Set(rows.map((row) => row[what]));
		value = now.size === 1 ? [...now][0]! : '';
		wrong = '';
		asking = what;
	}

	/** the earlier one first */
	const inTime = $derived([...rows].sort((a, b) => (a.sentAt < b.sentAt ? -1 : 1)));
	const places = $derived<MenuEntry[]>([
		...(folders.length > 0 ? [{ name: 'Into a folder…', run: () => ask('folder') }] : []),
		{ name: 'Name their type…', run: () => ask('type') },
		{ name: 'Under a legal hold…', note: 'Nothing of them goes until it is lifted', run: () => (holding = true) },
		...(lies ? [{ name: 'Take back', run: () => run({ do: 'restore' }) }] : []),
		...(lies !== 'archive'
			? [{ name: 'Archive', note: 'Out of the way; a search still finds them', run: () => run({ do: 'archive' }) }]
			: []),
		...(lies !== 'bin' ? [{ name: 'Bin', grave: true, run: () => run({ do: 'bin' }) }] : [])
	]);
	const files: MenuEntry[] = [
		{ name: 'Copies, records and answers (ZIP)', run: () => fetching({ what: 'copies', as: 'zip' }) },
		{ name: 'Answers as one workbook', run: () => fetching({ what: 'answers', as: 'xlsx' }) },
		{ name: 'Answers as one CSV', run: () => fetching({ what: 'answers', as: 'csv' }) },
		{ name: 'This list as CSV', run: () => fetching({ what: 'list', as: 'csv' }) },
		{ name: 'This list as a workbook', run: () => fetching({ what: 'list', as: 'xlsx' }) }
	];
</script>

{#if mayAct}<Menu label="Put…" hint="Put what is chosen somewhere" entries={places} disabled={busy} />{/if}
{#if rows.length === 2}<a class="button" href="/records/compare?a={inTime[0]!.id}&b={inTime[1]!.id}">Compare</a>{/if}
<Menu label="Download…" hint="Download what is chosen" entries={files} disabled={share !== null} />
{#if busy}<span role="status" class="text-quiet">Working…</span>{/if}
{#if share !== null}
	<span role="status" class="flex items-center gap-2"
		><progress class="w-32" max="1" value={share} aria-label="Fetching"></progress>{Math.round(share * 100)} %
		<button type="button" class="plain" onclick={() => ending?.abort()}>Call it off</button></span
	>
{/if}
<p class="wrong empty:hidden" role="alert">{asking ? '' : wrong}</p>

<DialogBox
	bind:open={() => asking !== null, (now) => (asking = now ? asking : null)}
	place="top-28 left-1/2 w-[440px] -translate-x-1/2"
>
	<Dialog.Title class="font-serif text-lg font-semibold"
		>{asking === 'folder' ? 'Into which folder?' : 'Which type are they?'}</Dialog.Title
	>
	<Dialog.Description class="pt-1 pb-3"
		>{asking === 'folder'
			? 'Who sees into that folder sees them from then on. The record of each says that it was moved.'
			: 'What the office sorts by. The record of each says what it was before.'}</Dialog.Description
	>
	<form
		class="grid gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			void run(asking === 'folder' ? { do: 'folder', folder: value } : { do: 'type', type: value });
		}}
	>
		{#if asking === 'folder'}
			<Choice
				label="Folder"
				{value}
				options={[['', 'none, the whole office’s'], ...folders.map((one): [string, string] => [one, one])]}
				onchoose={(next) => (value = next)}
			/>
		{:else}<Suggested
				label="Type"
				{value}
				most={80}
				offered={among(types)}
				oninput={(words) => (value = words)}
				ontake={(offer) => (value = offer.words)}
			/>{/if}
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
		<p class="flex gap-2">
			<button class="button primary" disabled={busy}>Put them there</button><Dialog.Close class="button"
				>Leave them</Dialog.Close
			>
		</p>
	</form>
</DialogBox>
<Refusals bind:refused />
<HoldThese bind:open={holding} ids={rows.map(({ id }) => id)} {ondone} />
