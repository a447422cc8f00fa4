<script lang="ts">
	import type { IdentityToShow } from '../../../core/identity';
	import type { WordKey } from '../../../words/words';
	import { useWords } from '../words';
	import Pictures from './Pictures.svelte';
	import Questions from './Questions.svelte';

	/** Before anything is shown: who they are, by a document, by what the office knows, or both. */
	let { view, base, locale, onchange }: { view: IdentityToShow; base: string; locale: string; onchange: () => void } =
		$props();

	const words = useWords();
	const documents = $derived(view.ways.includes('document'));
	const questions = $derived(view.ways.includes('questions'));
	const both = $derived(documents && questions);

	/** Why the last pictures were not enough. */
	const why = $derived.by(() => {
		if (!view.last) return [];
		if (view.last.verdict === 'again') return [words()('show.unread')];
		const said = view.last.checks.map((check) => {
			const key = `show.wrong.${check}` as WordKey;
			return ['kind', 'country', 'expiry', 'name', 'birth'].includes(check) ? words()(key) : words()('show.wrong');
		});
		return [...new Set(said.length > 0 ? said : [words()('show.wrong')])];
	});
</script>

<main id="main" class="mx-auto max-w-md px-5 py-8 text-[17px] leading-7">
	<h2 class="pb-2 text-xl">{words()('show.title')}</h2>
	{#if documents}<p class="pb-4 text-[15px] leading-6 text-quiet">{words()('show.text')}</p>{/if}
	{#if view.word}<p class="mb-4 border-s-[3px] border-thread ps-3">{view.word}</p>{/if}
	{#if view.looking}
		<p class="border-t border-hairline pt-4" role="status">{words()('show.looking')}</p>
	{:else}
		{#if why.length > 0}
			<div class="mb-4 border-s-[3px] border-copper ps-3" role="alert">
				{#each why as one (one)}<p>{one}</p>{/each}
				{#if view.last?.verdict === 'wrong'}<p>{words()('show.left', { left: view.left.document })}</p>{/if}
			</div>
		{/if}
		{#if both && view.either}<p class="pb-4">{words()('show.either')}</p>{/if}
		{#if documents}
			<section class="pb-8" aria-labelledby="by-document">
				<h2 class="pb-3 text-[18px]" id="by-document">{words()('show.document')}</h2>
				<Pictures {base} kinds={view.kinds} sides={view.sides} taken={view.taken} {onchange} />
			</section>
		{/if}
		{#if questions && (!documents || view.either)}
			<section aria-labelledby="by-questions">
				<h2 class="pb-3 text-[18px]" id="by-questions">{words()('show.questions')}</h2>
				<Questions {base} asks={view.asks} {locale} {onchange} />
			</section>
		{/if}
	{/if}
</main>
