<script lang="ts">
	import Redo2 from '@lucide/svelte/icons/redo-2';
	import Undo2 from '@lucide/svelte/icons/undo-2';
	import { applyAction, enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import type { SubmitFunction } from '@sveltejs/kit';
	import type { Intake } from '../../core/intake';
	import Menu from '../parts/Menu.svelte';
	import { tell } from '../parts/told';
	import type { Making } from './making.svelte';
	import ThrowAway from './ThrowAway.svelte';

	/** What the intake is, how it stands, what is still to be put right, and what makes visitors see it. */
	let {
		making,
		intake,
		template,
		used,
		say,
		onshow
	}: {
		making: Making;
		intake: { id: string; state: 'making' | 'open' | 'closed' };
		template: string;
		/** what visitors see now; null: it was never opened */
		used: Intake | null;
		say: string;
		onshow: (at: string) => void;
	} = $props();

	const grave = $derived(making.found.filter(({ mild }) => !mild));
	const STATE = { making: 'being made: nobody sees it yet', open: 'open', closed: 'closed' } as const;
	const changed = $derived(used !== null && JSON.stringify(used) !== JSON.stringify(making.setting));
	/** what was typed last goes before it is put in use */
	const kept: SubmitFunction = async ({ formData, cancel }) => {
		if (!(await making.keep())) return cancel();
		formData.set('revision', String(making.revision));
		return async ({ result }) => {
			await applyAction(result);
			await invalidateAll();
			if (result.type === 'success') tell('Visitors see it as it is now');
		};
	};
</script>

<header class="flex flex-wrap items-center gap-x-4 gap-y-2 px-5 py-3">
	<div class="min-w-0 flex-[1_1_280px]">
		<h1 class="truncate text-[19px] leading-7">{making.setting.heading || 'Without a heading'}</h1>
		<p class="text-[14px] text-quiet">
			Intake of {template} · {STATE[intake.state]}{changed ? ', changed since' : ''} ·
			<span role="status"
				>{making.keeping === 'kept' ? 'saved' : making.keeping === 'keeping' ? 'saving…' : 'not saved'}</span
			>
		</p>
	</div>
	<button
		type="button"
		class="plain inline-flex items-center gap-1.5"
		disabled={!making.canUndo}
		onclick={() => making.undo()}><Undo2 size={15} aria-hidden="true" /> Undo</button
	>
	<button
		type="button"
		class="plain inline-flex items-center gap-1.5"
		disabled={!making.canRedo}
		onclick={() => making.redo()}><Redo2 size={15} aria-hidden="true" /> Redo</button
	>
	{#if making.found.length > 0}
		<Menu
			label={grave.length > 0
				? `${grave.length === 1 ? 'One thing' : `${grave.length} things`} before it can open`
				: `${making.found.length === 1 ? 'One thing' : `${making.found.length} things`} worth a look`}
			look="button {grave.length > 0 ? 'border-copper!' : ''}"
			entries={making.found.map((one) => ({ name: one.say, run: () => onshow(one.at) }))}
		/>
	{/if}
	{#if used === null}<ThrowAway heading={making.setting.heading || 'this intake'} />{/if}
	{#if intake.state === 'open'}<form method="POST" action="?/close" use:enhance>
			<button class="button">Close it</button>
		</form>
	{:else if intake.state === 'closed'}<form method="POST" action="?/open" use:enhance>
			<button class="button">Open it again</button>
		</form>{/if}
	{#if used === null || changed}
		<form method="POST" action="?/use" use:enhance={kept}>
			<button class="button {grave.length === 0 ? 'primary' : ''}" disabled={grave.length > 0}
				>{used === null ? 'Open it' : 'Put the changes in use'}</button
			>
		</form>
	{/if}
</header>
<p class="wrong px-5 empty:hidden" role="alert">{making.wrong || say}</p>
