<script lang="ts">
	import { cutText } from '../../core/clean-text';
	import type { ComponentProps } from 'svelte';
	import { untrack } from 'svelte';
	import type { Paper, SeenPart, WordingRequest } from '../../core/packet';
	import Asking from './Asking.svelte';
	import { handTo, serverKeeper, type Keeper } from './keeper';
	import { watchPages } from './seen';
	import { Signing, type Turn } from './signing.svelte';
	import TurnPage from './TurnPage.svelte';
	import WordingsPart from './WordingsPart.svelte';
	import { useWords } from './words';

	/**
	 * A person's turn, once they have agreed: the documents with what is to do, and the ways out. Fetched after the first
	 * view, which has no use for any of it.
	 */
	let {
		view,
		base,
		after,
		zoom,
		later,
		asText,
		onrefresh
	}: {
		view: Turn & {
			me: { name: string; duty: string };
			sender: string;
			group: boolean;
			wordings: WordingRequest[];
			/** whether the time on each page is kept */
			seen: boolean;
			stumbles: boolean;
			/** what was corrected since they opened it, and they have not been shown yet */
			corrected: SeenPart[];
			/** it is a new version of one that they had opened */
			earlier: boolean;
			zone: string;
			/** the notary before whom it is done, and whether that may be now */
			notary: { may: boolean } | null;
		};
		/** `/s/TOKEN` */
		base: string;
		after: string;
		zoom: number;
		later: boolean;
		asText: boolean;
		/** the server has something new to show */
		onrefresh: () => Promise<void>;
	} = $props();

	const words = useWords();
	const signing = new Signing(
		watched(
			serverKeeper(
				untrack(() => base),
				words
			)
		),
		untrack(() => view),
		words
	);
	/** What was kept may tell that the page shows something else by now. */
	function watched(keeper: Keeper): Keeper {
		return {
			...keeper,
			keep: async (answers) => {
				const kept = await keeper.keep(answers);
				if (kept.stale && view.corrected.length === 0) void onrefresh();
				return kept;
			}
		};
	}
	const paperUrl = (paper: Paper) => `${base}/papers/${paper.id}`;

	let busy = $state(false);
	let wrong = $state('');
	let asking = $state<ComponentProps<typeof Asking>['what']>(null);
	let marked = $state.raw<{ paper: string; page: number; words: string } | null>(null);
	let root = $state<HTMLElement>();

	/** Keeps what is entered; whether that worked. */
	export function keep(): Promise<boolean> {
		return signing.keep();
	}

	/** Opens one of the ways out. */
	export function ask(what: NonNullable<typeof asking>): void {
		wrong = '';
		asking = what;
	}

	async function finish() {
		if (busy) return;
		busy = true;
		seen?.();
		seen = undefined;
		const no = await signing.finish();
		busy = false;
		wrong = no ?? '';
		// whatever the answer, the page shows what holds now
		await onrefresh();
	}

	async function hand(guest: string) {
		await signing.keep();
		wrong = (await handTo(base, guest, base, words())) ?? '';
	}

	/** Words that were last marked in the text go along when another wording is asked for: the press that asks unmarks them. */
	function mark() {
		const selection = getSelection();
		const text = selection?.toString().trim() ?? '';
		const at = selection?.anchorNode?.parentElement?.closest<HTMLElement>('[data-text-page]');
		if (!at || asking) return;
		marked =
			text === ''
				? null
				: { paper: at.dataset['textPaper']!, page: Number(at.dataset['textPage']), words: cutText(text, 2000) };
	}

	// how long pages are in view, where the sender's organisation keeps that
	let seen: (() => void) | undefined;
	$effect(() => {
		if (!view.seen || asText || !root) return;
		const address = `${base}/seen`;
		seen = watchPages(root, (pages) =>
			navigator.sendBeacon(address, new Blob([JSON.stringify({ pages })], { type: 'application/json' }))
		);
		return () => seen?.();
	});
	// fetched only where the office counts that; a count, not a condition: where it can't be had, nothing is counted
	$effect(() => {
		if (!view.stumbles || !root) return;
		const within = root;
		const stop = import('./stumbles').then((one) => one.countStumbles(within, signing, base));
		return () => void stop.then((end) => end()).catch(() => {});
	});
</script>

<svelte:document onselectionchange={mark} />
<div bind:this={root} class="lg:flex lg:h-[calc(100dvh-73px)] lg:flex-col" style:--turn="100%">
	{#if view.corrected.length > 0 || view.earlier}{#await import('./CorrectedPart.svelte') then { default: CorrectedPart }}<CorrectedPart
				{base}
				parts={view.corrected}
				{onrefresh}
			/>{/await}{/if}
	{#if view.wordings.length > 0}<WordingsPart wishes={view.wordings} />{/if}
	<TurnPage
		{signing}
		papers={view.papers}
		{paperUrl}
		readingUrl={(paper) => `${base}/reading/${paper.id}`}
		name={view.me.name}
		duty={view.me.duty}
		zone={view.zone}
		{after}
		{zoom}
		{busy}
		wrong={asking ? '' : wrong}
		{later}
		{asText}
		room={view.notary && !view.notary.may ? `${base}/room` : null}
		onfinish={finish}
		onhand={hand}
	/>
	<Asking
		{base}
		bind:what={asking}
		group={view.group}
		papers={view.papers}
		{marked}
		ondone={(what) => (what === 'hand over' ? location.reload() : void onrefresh())}
	/>
</div>
