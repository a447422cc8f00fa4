<script lang="ts">
	import type { WordKey } from '../../words/words';
	import { useWords } from './words';

	/** What a person sees first: who asks for what, what will happen, and the consent beside its text. */
	let {
		view,
		before,
		after,
		consent,
		busy,
		wrong,
		ongo,
		onpaper
	}: {
		view: {
			title: string;
			sender: string;
			organisation: string;
			message: string;
			note: string;
			host: string | null;
			me: { name: string; duty: string };
		};
		/** who has had it before */
		before: string[];
		/** what comes after this person, in a sentence */
		after: string;
		consent: string[];
		busy: boolean;
		wrong: string;
		ongo: () => void;
		/** where they may sign on paper instead */
		onpaper?: (() => void) | undefined;
	} = $props();

	const words = useWords();
	let agreed = $state(false);
	const asks = $derived(
		words()(`mail.asks.${view.me.duty}` as WordKey, {
			sender: view.sender,
			organisation: view.organisation,
			title: view.title
		})
	);
</script>

<main id="main" class="mx-auto max-w-2xl px-5 py-8 text-[17px] leading-7">
	<h2 class="pb-3 text-xl">{words()('first.title')}</h2>
	{#if view.host}<p class="mb-4 border-s-[3px] border-thread bg-wash px-4 py-2">
			{words()('host.guest', { host: view.host })}
		</p>{/if}
	<p>{words().joined([asks, words()('mail.account')])}</p>
	<ol class="list-decimal py-4 ps-6">
		<li>
			{words().joined([
				words()('first.read'),
				before.length > 0 ? words()('first.before', { names: words().list(before) }) : ''
			])}
		</li>
		<li>{words()('first.led')}</li>
		<li>{words().joined([words()('first.finish'), after])}</li>
	</ol>
	{#if view.message}<blockquote class="mb-5 border-s-2 border-line ps-4 whitespace-pre-wrap" dir="auto">
			{view.message}
		</blockquote>{/if}
	{#if view.note}
		<h3 class="text-[16px]">{words()('first.note')}</h3>
		<blockquote class="mb-5 border-s-2 border-thread ps-4 whitespace-pre-wrap" dir="auto">{view.note}</blockquote>
	{/if}
	<section aria-labelledby="consent" class="rounded-sm border border-hairline bg-sheet p-4 text-[15px] leading-6">
		<h2 id="consent" class="pb-1 text-[16px]">
			{words()(view.me.duty === 'signs' ? 'consent.title' : 'consent.title other')}
		</h2>
		<ul class="list-disc ps-5">
			{#each consent as line (line)}<li>{line}</li>{/each}
		</ul>
		<label class="flex min-h-[44px] items-center gap-3 pt-2 font-semibold"
			><input class="size-5" type="checkbox" bind:checked={agreed} /> {words()('consent.agree')}</label
		>
	</section>
	<p class="wrong pt-3 empty:hidden" role="alert">{wrong}</p>
	<p class="pt-5">
		<button class="button primary large w-full sm:w-auto" disabled={!agreed || busy} onclick={ongo}
			>{words()('consent.go')}</button
		>
		{#if onpaper}<button type="button" class="button large mt-3 w-full sm:ms-3 sm:mt-0 sm:w-auto" onclick={onpaper}
				>{words()('paper.title')}</button
			>{/if}
	</p>
</main>
