<script lang="ts">
	import { questionOf } from '../../core/field';
	import type { Field, Paper } from '../../core/packet';
	import { clock } from '../dates';
	import type { Signing } from './signing.svelte';
	import SignPages from './SignPages.svelte';
	import TodoList from './TodoList.svelte';

	/** The documents and what is to do, side by side; on a phone one above the other. */
	let {
		signing,
		papers,
		paperUrl,
		name,
		verb,
		zone,
		after,
		zoom = 1,
		busy,
		wrong,
		later = false,
		onfinish
	}: {
		signing: Signing;
		papers: Paper[];
		paperUrl: (paper: Paper) => string;
		name: string;
		verb: string;
		zone: string;
		/** what comes after this person, in a sentence */
		after: string;
		zoom?: number;
		busy: boolean;
		wrong: string;
		/** they have asked to go on later, and everything is kept */
		later?: boolean;
		onfinish: () => void;
	} = $props();

	const own = $derived(
		signing.todo.flatMap((f) =>
			questionOf(signing.fields, f)
				.filter((t) => t.person === signing.me)
				.map((t) => t.id)
		)
	);
	const current = $derived.by(() => {
		const field = signing.fields.find((f) => f.id === signing.current);
		return field ? questionOf(signing.fields, field).map((f) => f.id) : [];
	});

	function show(id: string) {
		document.querySelector(`[data-place="${id}"]`)?.scrollIntoView({ block: 'center' });
	}
	function focus(id: string) {
		setTimeout(() => {
			const entry = document.querySelector(`[data-todo="${id}"]`);
			entry?.scrollIntoView({ block: 'nearest' });
			entry
				?.querySelector<HTMLElement>('input:not([type=radio]):not([type=file]), textarea, select')
				?.focus({ preventScroll: true });
		}, 30);
	}
	function choose(field: Field) {
		signing.press(field);
		const small = field.kind === 'pick-one' || field.kind === 'ticks';
		if (signing.current && !small) focus(signing.current);
	}
	function next() {
		signing.next();
		if (!signing.current) return;
		show(signing.current);
		focus(signing.current);
	}
</script>

<main id="main" class="flex flex-col lg:h-[calc(100dvh-73px)] lg:flex-row">
	<section
		aria-label="Documents"
		class="relative min-w-0 flex-1 overflow-x-auto bg-desk px-2 py-4 sm:px-8 lg:overflow-y-auto"
	>
		<SignPages
			{papers}
			fields={signing.fields}
			now={signing.now}
			{own}
			{current}
			locale={signing.locale}
			{paperUrl}
			pictures={signing.keeper.pictures}
			{zoom}
			onchoose={choose}
		/>
	</section>
	<section
		aria-labelledby="todo"
		class="sticky bottom-0 z-10 flex max-h-[62dvh] flex-col border-t border-hairline bg-sheet lg:static lg:max-h-none lg:w-[352px] lg:border-t-0 lg:border-l"
	>
		<h2 id="todo" class="border-b border-hairline px-5 py-3 text-[17px]">
			To do <span class="font-sans text-[14px] font-normal text-quiet" aria-live="polite"
				>{signing.open.length === 0 ? 'all done' : `${signing.open.length} of ${signing.todo.length} left`}</span
			>
		</h2>
		<div class="relative min-h-0 flex-1 overflow-y-auto px-5">
			<TodoList {signing} {name} ongo={show} />
		</div>
		<div class="border-t border-hairline px-5 py-3">
			<p class="pb-2 text-[14px] leading-[18px] text-quiet">
				<span class="hidden lg:inline">{after} </span>
				<span role="status"
					>{signing.keeping.is === 'kept'
						? signing.keeping.at
							? `Saved ${clock(signing.keeping.at, zone)}; you can come back to this link.`
							: ''
						: signing.keeping.is === 'keeping'
							? 'Saving…'
							: signing.keeping.say}</span
				>
				{#if later}<b>You can close this page now.</b>{/if}
			</p>
			<p class="wrong pb-2 empty:hidden" role="alert">{wrong}</p>
			{#if signing.open.length === 0}
				{#each signing.naming as place (place.id)}
					<fieldset class="grid gap-2 pb-3">
						<legend class="pb-1 font-semibold">Who is {place.role}, who {place.duty} after you?</legend>
						<label
							>Name<input
								class="input mt-1 min-h-[44px]!"
								maxlength="200"
								autocomplete="off"
								bind:value={signing.names[place.id]!.name}
							/></label
						>
						<label
							>E-mail<input
								class="input mt-1 min-h-[44px]!"
								type="email"
								maxlength="254"
								autocomplete="off"
								bind:value={signing.names[place.id]!.email}
							/></label
						>
					</fieldset>
				{/each}
				<button class="button primary large w-full" disabled={busy || !signing.allNamed} onclick={onfinish}
					>{busy ? 'One moment…' : `${verb[0]!.toUpperCase()}${verb.slice(1)} as ${name}`}</button
				>
			{:else}
				{@const onIt = signing.open.some((f) => f.id === signing.current)}
				<button class="button primary large w-full" onclick={next}
					>Next: {(signing.open.find((f) => f.id !== (onIt ? signing.current : '')) ?? signing.open[0])?.label}</button
				>
			{/if}
		</div>
	</section>
</main>
