<script lang="ts">
	import { amendmentInWords, saidBy, signaturesAt, unsigned, withSummary } from '../../../core/amend';
	import type { Paper } from '../../../core/packet';
	import { freshId } from '../../../core/plan';
	import type { Bench } from '../bench.svelte';

	/** What is changed here, and the page that says so to everybody: above the pages of a draft that amends something. */
	let { bench, onchange, ongo }: { bench: Bench; onchange: () => void; ongo: (key: string) => void } = $props();

	const amends = $derived(bench.plan.amends!);
	const changes = $derived(amendmentInWords({ papers: bench.plan.papers, amends }));
	let busy = $state(false);
	let wrong = $state('');
	/** what the page of changes was made of, where it was made here */
	let made = $state('');
	const stale = $derived(!amends.summary || made !== saidBy(bench.plan));

	async function make() {
		busy = true;
		wrong = '';
		// it is made of what was saved, which asking does first
		const said = saidBy(bench.plan);
		const came = await bench.ask<Paper>('changes');
		busy = false;
		if ('wrong' in came) return void (wrong = came.wrong);
		const { id, name, digest, pages } = came;
		const paper = { id, name, digest, pages };
		const next = withSummary(bench.plan, paper);
		const missing = unsigned(next).flatMap((person) => next.people.filter((one) => one.id === person));
		const last = pages.length - 1;
		bench.change('make the page of changes', {
			...next,
			fields: [...next.fields, ...signaturesAt(pages[last]!, id, last, missing, () => freshId('f'))]
		});
		made = said;
		ongo(`${id}-0`);
	}
</script>

<div
	role="group"
	aria-label="Amendment"
	class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hairline bg-wash px-3.5 py-1.5 text-[14px]"
>
	<p class="min-w-48 flex-1">
		<b>Amendment {amends.number}</b> to
		<a class="font-mono text-thread underline" href="/packets/{amends.packet}">{amends.reference}</a>,
		{changes.length === 0 ? 'nothing changed yet' : changes.length === 1 ? 'one change' : `${changes.length} changes`}
	</p>
	<button class="button" onclick={onchange}>Strike words…</button>
	{#if changes.length > 0}<button class="button {stale ? 'primary' : ''}" disabled={busy || !stale} onclick={make}
			>{busy ? 'Making it…' : amends.summary ? 'Make the page of changes anew' : 'Make the page of changes'}</button
		>{/if}
	<p class="wrong w-full empty:hidden" role="alert">{wrong}</p>
</div>
