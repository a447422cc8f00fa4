<script lang="ts">
	import Day from '../../parts/Day.svelte';
	import { send } from '../keeper';
	import { useWords } from '../words';

	/** What the office knows of somebody: asked, compared, and kept nowhere. */
	let {
		base,
		asks,
		locale,
		onchange
	}: {
		base: string;
		asks: { id: string; ask: string; as: 'text' | 'number' | 'date' }[];
		locale: string;
		onchange: () => void;
	} = $props();

	const words = useWords();
	let answers = $state<Record<string, string>>({});
	let busy = $state(false);
	let wrong = $state('');

	async function give() {
		busy = true;
		const kept = await send(`${base}/questions`, 'POST', { answers }, words());
		busy = false;
		wrong = kept.ok ? '' : kept.say;
		onchange();
	}
</script>

<form
	class="grid gap-4"
	onsubmit={(event) => {
		event.preventDefault();
		void give();
	}}
>
	{#each asks as { id, ask, as } (id)}
		{#if as === 'date'}
			<Day label={ask} value={answers[id] ?? ''} {locale} large onchoose={(day) => (answers[id] = day)} />
		{:else}
			<label
				>{ask}<input
					class="input mt-1 min-h-[44px]!"
					maxlength="200"
					autocomplete="off"
					inputmode={as === 'number' ? 'decimal' : 'text'}
					bind:value={answers[id]}
				/></label
			>
		{/if}
	{/each}
	<p class="wrong empty:hidden" role="alert">{wrong}</p>
	<p><button class="button primary large w-full" disabled={busy}>{words()('code.go')}</button></p>
</form>
