<script lang="ts">
	import type { PaperToBring } from '../../../core/paper';
	import Bring from '../../paper/Bring.svelte';
	import { patient } from '../../post';
	import { sentenceOf } from '../keeper';
	import { useWords } from '../words';

	/** Signing on paper: what will happen, the PDF to print, and bringing it back; where one is with it is said first. */
	let {
		paper,
		base,
		title,
		onchange,
		onhere
	}: { paper: PaperToBring; base: string; title: string; onchange: () => void; onhere: () => void } = $props();

	const words = useWords();
	let busy = $state(false);
	let wrong = $state('');

	async function fetchPdf() {
		busy = true;
		wrong = '';
		try {
			const response = await patient(`${base}/paper/pdf`, { method: 'POST' });
			if (!response.ok) wrong = sentenceOf((await response.json()) as Parameters<typeof sentenceOf>[0], words());
			else {
				const link = document.createElement('a');
				link.href = URL.createObjectURL(await response.blob());
				link.download = `${title}.pdf`;
				link.click();
				setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
				onchange();
			}
		} catch {
			wrong = words()('error.offline');
		}
		busy = false;
	}
</script>

<main id="main" class="mx-auto grid max-w-2xl gap-5 px-5 py-8 text-[17px] leading-7">
	<h2 class="text-xl">{words()('paper.title')}</h2>
	{#if paper.is === 'again'}
		<div class="border-s-[3px] border-copper bg-wash px-4 py-2" role="status">
			<p>{words()('paper.again', { pages: paper.again.join(', ') })}</p>
			{#if paper.word}<p class="whitespace-pre-wrap" dir="auto">{paper.word}</p>{/if}
		</div>
	{:else if paper.is === 'refused'}
		<div class="border-s-[3px] border-brick bg-wash px-4 py-2" role="status">
			<p>{words()('paper.refused')}</p>
			<p class="whitespace-pre-wrap" dir="auto">{paper.word}</p>
		</div>
	{:else if paper.is === 'looking'}
		<p class="border-s-[3px] border-thread bg-wash px-4 py-2" role="status">{words()('paper.looking')}</p>
	{/if}
	{#if paper.is !== 'looking'}
		<ol class="list-decimal ps-6">
			<li>{words()('paper.get')}</li>
			<li>{words()('paper.sign')}</li>
			<li>{words()('paper.bring')}</li>
			<li>{words()('paper.held')}</li>
		</ol>
		{#if paper.post}
			<p class="text-[15px]">
				{words()('paper.post')}:<br /><span class="whitespace-pre-wrap" dir="auto">{paper.post}</span>
			</p>
		{/if}
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
		<p>
			<button
				type="button"
				class="button large w-full sm:w-auto {paper.is === null || paper.is === 'refused' ? 'primary' : ''}"
				disabled={busy}
				onclick={() => void fetchPdf()}>{words()(busy ? 'keep.moment' : 'paper.fetch')}</button
			>
		</p>
		{#if paper.is === 'fetched' || paper.is === 'again'}
			<Bring
				base="{base}/paper"
				words={words()}
				pages={paper.pages}
				pictures={paper.pictures}
				missing={paper.missing}
				{onchange}
			/>
		{/if}
	{/if}
	<p class="border-t border-hairline pt-4">
		<button type="button" class="button large" onclick={onhere}>{words()('paper.here')}</button>
	</p>
</main>
