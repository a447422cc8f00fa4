<script lang="ts">
	import { enhance } from '$app/forms';
	import type { Snippet } from 'svelte';

	/** A form of a line or two that stands in the page, with a way to leave it. */
	let {
		action,
		button,
		say,
		grave = false,
		children,
		ondone,
		onleave
	}: {
		action: string;
		button: string;
		/** the sentence where it was refused */
		say: string;
		grave?: boolean;
		children: Snippet;
		ondone?: () => void;
		onleave?: () => void;
	} = $props();
</script>

<form
	method="POST"
	{action}
	class="grid gap-2 pt-1"
	use:enhance={() =>
		async ({ result, update }) => {
			await update({ reset: false });
			if (result.type === 'success') ondone?.();
		}}
>
	{@render children()}
	<p class="wrong empty:hidden" role="alert">{say}</p>
	<p class="flex gap-2">
		<button class="button {grave ? 'grave' : 'primary'}">{button}</button>
		{#if onleave}<button type="button" class="button" onclick={onleave}>Leave it</button>{/if}
	</p>
</form>
