<script lang="ts">
	import { useWords } from './words';

	/** What this person has asked to be worded otherwise, and what was answered. */
	let { wishes }: { wishes: { id: string; words: string; instead: string; answer: string | null }[] } = $props();

	const words = useWords();
</script>

<section class="border-b border-hairline bg-linen px-5 py-3 text-[15px]" aria-label={words()('wording.title')}>
	{#each wishes as wish (wish.id)}
		<p>
			{words()('wording.asked', { words: wish.words, instead: wish.instead })}
			<b>{wish.answer === null ? words()('wording.open') : words()('wording.answered', { say: wish.answer })}</b>
		</p>
	{/each}
</section>
