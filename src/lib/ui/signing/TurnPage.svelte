<script lang="ts">
	import { questionOf } from '../../core/field';
	import type { Field, Paper } from '../../core/packet';
	import type { WordKey } from '../../words/words';
	import { clock } from '../dates';
	import GuestsPart from './GuestsPart.svelte';
	import ReadAsText from './ReadAsText.svelte';
	import type { Signing } from './signing.svelte';
	import SignPages from './SignPages.svelte';
	import TodoList from './TodoList.svelte';
	import WhoInputs from './WhoInputs.svelte';
	import { useWords } from './words';

	/** The documents and what is to do, side by side; on a phone one above the other. */
	let {
		signing,
		papers,
		paperUrl,
		name,
		duty,
		zone,
		after,
		zoom = 1,
		busy,
		wrong,
		later = false,
		asText = false,
		room = null,
		readingUrl,
		onfinish,
		onhand
	}: {
		signing: Signing;
		papers: Paper[];
		paperUrl: (paper: Paper) => string;
		name: string;
		duty: string;
		zone: string;
		/** what comes after this person, in a sentence */
		after: string;
		zoom?: number;
		busy: boolean;
		wrong: string;
		/** they have asked to go on later, and everything is kept */
		later?: boolean;
		/** the documents as text instead of pictures of pages */
		asText?: boolean;
		/** where it is finished instead: before the notary */
		room?: string | null;
		readingUrl: (paper: Paper) => string;
		onfinish: () => void;
		/** the device is handed to a guest */
		onhand?: (guest: string) => void;
	} = $props();

	const words = useWords();

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
		document.querySelector(`[data-place="${id}"]`)?.scrollIntoView({ block: asText ? 'start' : 'center' });
	}
	function focus(id: string) {
		setTimeout(() => {
			const entry = document.querySelector(`${asText ? 'article' : 'aside, section'} [data-todo="${id}"]`);
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

<main id="main" class="flex flex-col lg:h-[var(--turn,calc(100dvh-73px))] lg:min-h-0 lg:flex-row">
	<div
		class="relative min-w-0 flex-1 lg:overflow-y-auto {asText
			? 'bg-sheet'
			: 'overflow-x-auto bg-desk px-2 py-4 sm:px-8'}"
		dir={asText ? undefined : 'ltr'}
	>
		{#if asText}<ReadAsText {signing} {papers} {readingUrl} {name} />
		{:else}
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
		{/if}
	</div>
	<section
		aria-labelledby="todo"
		class="sticky bottom-0 z-10 flex max-h-[62dvh] flex-col border-t border-hairline bg-sheet lg:static lg:max-h-none lg:w-[352px] lg:border-t-0 lg:border-s"
	>
		<h2 id="todo" class="border-b border-hairline px-5 py-3 text-[17px]">
			{words()('todo.title')}
			<span class="font-sans text-[14px] font-normal text-quiet" aria-live="polite"
				>{signing.open.length === 0
					? words()('todo.all done')
					: words()('todo.left', { left: signing.open.length, all: signing.todo.length })}</span
			>
		</h2>
		<div class="relative min-h-0 flex-1 overflow-y-auto px-5">
			{#if !asText}<TodoList {signing} {name} ongo={show} />{/if}
		</div>
		<div class="border-t border-hairline px-5 py-3">
			<p class="pb-2 text-[14px] leading-[18px] text-quiet">
				<span class="hidden lg:inline">{after} </span>
				<span role="status"
					>{signing.keeping.is === 'kept'
						? signing.keeping.at
							? words()('keep.saved', { time: clock(signing.keeping.at, zone, words().language) })
							: ''
						: signing.keeping.is === 'keeping'
							? words()('keep.saving')
							: signing.keeping.say}</span
				>
				{#if later}<b>{words()('keep.close')}</b>{/if}
			</p>
			<p class="wrong pb-2 empty:hidden" role="alert">{wrong}</p>
			{#if signing.open.length === 0}
				{#if signing.hosted.length > 0 && onhand}<GuestsPart {signing} {onhand} />{/if}
				{#each signing.naming as place (place.id)}
					<fieldset class="grid gap-2 pb-3">
						<legend class="pb-1 font-semibold">{words()('naming.who', { role: place.role })}</legend>
						<WhoInputs
							bind:who={signing.names[place.id]!}
							nameLabel={words()('naming.name')}
							emailLabel={words()('naming.email')}
						/>
						<label
							>{words()('naming.note')}<textarea
								class="input mt-1"
								maxlength="2000"
								bind:value={signing.names[place.id]!.note}></textarea></label
						>
					</fieldset>
				{/each}
				{#if room}<a class="button primary large w-full justify-center" href={room}>{words()('notary.go')}</a>
				{:else}
					<button class="button primary large w-full" disabled={busy || !signing.ready} onclick={onfinish}
						>{busy ? words()('keep.moment') : words()(`finish.${duty}` as WordKey, { name })}</button
					>
				{/if}
			{:else}
				{@const onIt = signing.open.some((f) => f.id === signing.current)}
				<button class="button primary large w-full" onclick={next}
					>{words()('todo.next', {
						label: (signing.open.find((f) => f.id !== (onIt ? signing.current : '')) ?? signing.open[0])?.label ?? ''
					})}</button
				>
			{/if}
		</div>
	</section>
</main>
