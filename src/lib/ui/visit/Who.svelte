<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Somebody } from '../../core/intake';
	import { useWords } from '../signing/words';
	import WhoInputs from '../signing/WhoInputs.svelte';

	/** Somebody by name and address, and what else is wanted of them. */
	let {
		who = $bindable(),
		legend,
		help = '',
		phone = false,
		wrong,
		more
	}: {
		who: Somebody;
		legend: string;
		help?: string;
		/** their telephone number is asked for too */
		phone?: boolean;
		wrong: string;
		more?: Snippet;
	} = $props();

	const words = useWords();
</script>

<fieldset class="grid gap-3 py-3">
	<legend class="pb-1 font-semibold">{legend}</legend>
	{#if help}<p class="text-[15px] text-quiet">{help}</p>{/if}
	<WhoInputs bind:who nameLabel={words()('naming.name')} emailLabel={words()('naming.email')} />
	{#if phone}
		<label
			>{words()('intake.phone')}<input
				class="input mt-1 min-h-[44px]!"
				type="tel"
				maxlength="40"
				dir="ltr"
				autocomplete="off"
				value={who.phone ?? ''}
				oninput={(event) => (who.phone = event.currentTarget.value)}
			/></label
		>
	{/if}
	{@render more?.()}
	<p class="wrong empty:hidden" role="alert">{wrong}</p>
</fieldset>
