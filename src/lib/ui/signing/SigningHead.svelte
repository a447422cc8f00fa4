<script lang="ts">
	import LanguagePick from './LanguagePick.svelte';
	import MoreMenu from './MoreMenu.svelte';
	import OfficeMark from './OfficeMark.svelte';
	import { useWords } from './words';

	/** Who sends it, what it is, until when; language, size, and one menu. */
	let {
		view,
		organisation,
		language,
		languages,
		turn,
		asText = $bindable(),
		zoom = $bindable(),
		downloads,
		may,
		onlanguage,
		onsave,
		onask,
		onpaper
	}: {
		view: { title: string; sender: string; organisation: string; until: string | null };
		organisation: { logo: boolean; colour: string };
		language: string;
		languages: { language: string; name: string }[];
		/** whether this person has it in hand now */
		turn: boolean;
		asText: boolean;
		zoom: number;
		downloads: { id: string; name: string; href: string }[];
		may: { handOver: boolean; wording: boolean; paper: boolean };
		onlanguage: (language: string) => void;
		onsave: () => void;
		onask: (what: 'hand over' | 'wording' | 'decline') => void;
		onpaper: () => void;
	} = $props();

	const words = useWords();
</script>

<header
	class="sticky top-0 z-20 flex min-h-[72px] flex-wrap items-center gap-x-4 border-b border-hairline bg-sheet px-4 sm:flex-nowrap sm:px-6"
>
	<OfficeMark {...organisation} name={view.organisation} />
	<div class="min-w-0 flex-1 py-2">
		<h1 class="line-clamp-2 text-[18px] leading-6 sm:text-[20px] sm:leading-7"><bdi>{view.title}</bdi></h1>
		<p class="text-[14px] leading-[18px] text-quiet">
			{words()('page.from', { sender: view.sender, organisation: view.organisation })}{#if view.until && turn}&nbsp;· {words()(
					'page.until',
					{ until: view.until }
				)}{/if}
		</p>
	</div>
	<div class="ms-auto flex items-center gap-1 pb-1 sm:pb-0">
		<LanguagePick {language} {languages} {onlanguage} />
		{#if turn}
			<button class="button min-h-[44px]!" aria-pressed={asText} onclick={() => (asText = !asText)}
				>{words()(asText ? 'view.pages' : 'view.text')}</button
			>
			{#if !asText}
				<button
					class="plain hidden size-[44px] sm:block"
					aria-label={words()('page.smaller')}
					onclick={() => (zoom = Math.max(0.5, zoom - 0.25))}>−</button
				>
				<button
					class="plain size-[44px]"
					aria-label={words()('page.larger')}
					onclick={() => (zoom = Math.min(3, zoom + 0.25))}>+</button
				>
			{/if}
			<MoreMenu
				label={words()('menu.more')}
				entries={[
					{ name: words()('menu.save'), run: onsave },
					...downloads.map(({ name, href }) => ({
						name: words()('menu.download', { name }),
						to: href,
						download: true
					})),
					...(may.paper ? [{ name: words()('paper.title'), run: onpaper }] : []),
					...(may.wording ? [{ name: words()('menu.wording'), run: () => onask('wording') }] : []),
					...(may.handOver ? [{ name: words()('menu.hand over'), run: () => onask('hand over') }] : []),
					{ name: words()('menu.decline'), run: () => onask('decline'), grave: true }
				]}
			/>
		{/if}
	</div>
</header>
