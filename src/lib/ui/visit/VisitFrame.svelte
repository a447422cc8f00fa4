<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import type { Snippet } from 'svelte';
	import { wordsIn, type Texts } from '../../words/words';
	import { send } from '../signing/keeper';
	import LanguagePick from '../signing/LanguagePick.svelte';
	import OfficeMark from '../signing/OfficeMark.svelte';
	import { giveWords } from '../signing/words';

	/** Who asks, and in which language; beneath it what is asked. */
	let {
		base,
		heading,
		name,
		logo,
		colour,
		language,
		direction,
		texts,
		languages,
		onlanguage,
		children
	}: {
		/** `/i/SLUG` */
		base: string;
		heading: string;
		name: string;
		logo: boolean;
		colour: string;
		language: string;
		direction: 'ltr' | 'rtl';
		texts: Texts;
		languages: { language: string; name: string }[];
		/** what choosing a language does; without it, it is kept for this browser */
		onlanguage?: (chosen: string) => void;
		children: Snippet;
	} = $props();

	const words = $derived(wordsIn(language, texts));
	giveWords(() => words);

	async function speak(chosen: string) {
		const kept = await send(`${base}/language`, 'POST', { language: chosen }, words);
		if (kept.ok) await invalidateAll();
	}
</script>

<svelte:head><title>{heading} · {name}</title></svelte:head>

<div lang={language} dir={direction} class="signing">
	<header
		class="flex min-h-[72px] flex-wrap items-center gap-x-4 border-b border-hairline bg-sheet px-4 sm:flex-nowrap sm:px-6"
	>
		<OfficeMark {logo} {colour} {name} />
		<div class="min-w-0 flex-1 py-2">
			<h1 class="line-clamp-2 text-[18px] leading-6 sm:text-[20px] sm:leading-7"><bdi>{heading}</bdi></h1>
			<p class="text-[14px] leading-[18px] text-quiet"><bdi>{name}</bdi></p>
		</div>
		<LanguagePick {language} {languages} onlanguage={onlanguage ?? speak} />
	</header>
	{@render children()}
</div>
