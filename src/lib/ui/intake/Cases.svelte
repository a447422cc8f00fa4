<script lang="ts">
	import { enhance } from '$app/forms';
	import { untrack } from 'svelte';
	import type { CaseRow, CaseStanding, Intake } from '../../core/intake';
	import { day } from '../dates';
	import { Paged, type Page } from '../lists/paged.svelte';
	import type { Column, Order } from '../parts/table/columns';
	import Table from '../parts/table/Table.svelte';
	import StoppedAt from './StoppedAt.svelte';

	/** The cases of an intake, and where people stop. */
	let {
		id,
		setting,
		cases,
		left,
		handed,
		zone,
		now,
		say
	}: {
		id: string;
		setting: Intake;
		cases: Page<CaseRow>;
		left: Record<string, number>;
		handed: number;
		zone: string;
		now: string;
		say: string;
	} = $props();

	const SAID: Record<CaseStanding, string> = {
		begun: 'begun',
		left: 'left',
		'handed in': 'to be signed by the first',
		waiting: 'signed by the first',
		done: 'done',
		ended: 'stopped',
		hidden: 'in a closed folder'
	};
	const paged = new Paged<CaseRow>(
		`/intakes/${untrack(() => id)}/cases`,
		untrack(() => cases),
		''
	);
	$effect(() => void paged.begin(cases, ''));
	let order = $state<Order | null>(null);
	const COLUMNS: Column<CaseRow>[] = [
		{ key: 'visitor', name: 'Begun by', fixed: true },
		{ key: 'standing', name: 'How it stands' },
		{ key: 'having', name: 'With' },
		{ key: 'packet', name: 'Packet', look: 'whitespace-nowrap' },
		{ key: 'begun', name: 'Begun', look: 'whitespace-nowrap' },
		{ key: 'do', name: 'Take over', unseen: true }
	];
	const title = (page: string) => setting.pages.find((one) => one.id === page)?.title ?? 'the first view';
</script>

{#snippet cell(row: CaseRow, key: string)}
	{#if key === 'visitor'}{row.visitor || 'somebody'}<br /><span class="text-[13px] text-quiet">{row.email}</span>
	{:else if key === 'standing'}{SAID[row.standing]}{#if row.standing === 'begun' || row.standing === 'left'}<br /><span
				class="text-[13px] text-quiet">at {title(row.page)}</span
			>{/if}
	{:else if key === 'having'}{row.having}
	{:else if key === 'packet'}{#if row.packet}<a class="text-thread underline" href="/packets/{row.packet}"
				>{row.reference}</a
			>{/if}
	{:else if key === 'begun'}{day(row.begunAt, zone, now)}
	{:else if row.email !== '' && (row.standing === 'begun' || row.standing === 'left')}
		<form method="POST" action="?/take" use:enhance>
			<input type="hidden" name="case" value={row.id} /><button class="button"
				>{row.taken ? 'Take over again' : 'Take over'}</button
			>
		</form>
	{/if}
{/snippet}

<div class="grid gap-6">
	<section aria-labelledby="stops">
		<h2 id="stops" class="pb-2 text-[16px]">Where people stop</h2>
		<StoppedAt pages={setting.pages} {left} {handed} />
	</section>
	<section aria-labelledby="cases">
		<div class="flex flex-wrap items-center gap-3 pb-2">
			<h2 id="cases" class="flex-1 text-[16px]">Cases</h2>
			{#if handed > 0}
				<span class="text-[14px] text-quiet">All answers by key:</span>
				<a class="button" href="/intakes/{id}/answers?as=csv" download>CSV</a>
				<a class="button" href="/intakes/{id}/answers?as=xlsx" download>XLSX</a>
			{/if}
		</div>
		<p class="wrong empty:hidden" role="alert">{say}</p>
		{#if paged.rows.length === 0}<p class="max-w-md py-6 font-serif text-quiet">
				Nobody has begun yet. Once it is open, everybody who begins stands here.
			</p>
		{:else}<Table
				label="Cases"
				columns={COLUMNS}
				rows={paged.rows}
				{cell}
				bind:order
				more={paged.next ? () => paged.more() : null}
				estimate={54}
			/>{/if}
	</section>
</div>
