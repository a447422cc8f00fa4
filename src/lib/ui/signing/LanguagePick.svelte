<script lang="ts">
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import type Choice from '../parts/Choice.svelte';
	import { wantLetters } from '../letters';
	import { useWords } from './words';

	/** The page's language. The list, and letters for its names, are fetched when somebody reaches for it. */
	let {
		language,
		languages,
		onlanguage
	}: {
		language: string;
		languages: { language: string; name: string }[];
		onlanguage: (language: string) => void;
	} = $props();

	const words = useWords();
	let List = $state.raw<typeof Choice | null>(null);
	let open = $state(false);

	async function reach() {
		wantLetters(languages.map((one) => one.name).join(' '));
		List = (await import('../parts/Choice.svelte')).default;
		open = true;
	}
</script>

{#if List}
	<List
		label={words()('page.language')}
		unseen
		narrow
		large
		bind:open
		value={language}
		options={languages.map((one): [string, string] => [one.language, one.name])}
		onchoose={onlanguage}
	/>
{:else}
	<button
		type="button"
		role="combobox"
		aria-expanded="false"
		aria-controls="languages"
		aria-label={words()('page.language')}
		class="input flex min-h-[44px]! w-auto! cursor-pointer items-center gap-2 text-[16px]"
		onclick={reach}
		onkeydown={(event) => {
			if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
			event.preventDefault();
			void reach();
		}}>{languages.find((one) => one.language === language)?.name}<ChevronDown size={14} aria-hidden="true" /></button
	>
{/if}
