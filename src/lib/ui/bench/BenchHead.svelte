<script lang="ts">
	import Tip from '../parts/Tip.svelte';
	import { Redo2, Undo2 } from '@lucide/svelte';
	import { clock } from '../dates';
	import type { Bench } from './bench.svelte';
	import { Route } from './route';

	/** The head of the Bench: where one is, how saving stands, the route, and what comes next. */
	let {
		bench,
		template,
		zone,
		onrehearse,
		ongo
	}: {
		bench: Bench;
		/** the template that is being changed; null for a packet */
		template: { id: string } | null;
		zone: string;
		onrehearse: () => void;
		/** send it, put it in use, or send the correction */
		ongo: () => void;
	} = $props();

	const plan = $derived(bench.plan);
	const what = $derived(bench.correcting || template ? '' : 'draft, ');
</script>

<header class="col-span-3 flex min-w-0 gap-4 border-b border-hairline">
	<div class="w-60 shrink-0 py-2.5 pl-[18px]">
		<p class="truncate text-[14px] text-quiet">
			{#if bench.correcting}<a href="/packets/{bench.correcting.packet}" class="font-mono text-thread underline"
					>{bench.correcting.reference}</a
				> ·{:else if template}<a href="/templates?id={template.id}" class="text-thread underline">Templates</a> ·{:else}<a
					href="/desk"
					class="text-thread underline">Desk</a
				> ·{/if}
			<span role="status"
				>{bench.saving.is === 'saved'
					? `${what}saved ${clock(bench.saving.at, zone)}`
					: bench.saving.is === 'saving'
						? 'saving…'
						: 'not saved'}</span
			>
		</p>
		<h1 class="text-[18px] leading-[24px]">
			<button
				class="line-clamp-2 min-h-[24px] min-w-[24px] cursor-pointer text-left"
				onclick={() => bench.chooseFields([])}>{plan.title || (template ? 'New template' : 'New packet')}</button
			>
		</h1>
	</div>
	<Route {bench} />
	<div class="flex shrink-0 items-start gap-2 py-8 pr-[18px]">
		<Tip
			name={bench.undoName ? `Undo: ${bench.undoName}` : 'Undo'}
			look="plain"
			disabled={bench.undoName === null}
			onclick={() => bench.undo()}><Undo2 size={18} aria-hidden="true" /></Tip
		>
		<Tip
			name={bench.redoName ? `Redo: ${bench.redoName}` : 'Redo'}
			look="plain"
			disabled={bench.redoName === null}
			onclick={() => bench.redo()}><Redo2 size={18} aria-hidden="true" /></Tip
		>
		<button class="button" disabled={plan.papers.length === 0} onclick={onrehearse}>Rehearse</button>
		<button class="button primary" disabled={bench.correcting?.ended} onclick={ongo}
			>{template ? 'Put in use…' : bench.correcting ? 'Send changes…' : 'Send…'}</button
		>
	</div>
</header>
