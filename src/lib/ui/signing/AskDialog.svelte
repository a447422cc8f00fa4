<script lang="ts">
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';
	import type { Snippet } from 'svelte';
	import { useWords } from './words';

	/** Asks for what something on the signing page needs, and says first what it means. */
	let {
		open = $bindable(false),
		title,
		text,
		button,
		busy,
		wrong,
		grave = false,
		children,
		ondo
	}: {
		open?: boolean;
		title: string;
		text: string;
		button: string;
		busy: boolean;
		wrong: string;
		grave?: boolean;
		children: Snippet;
		ondo: () => void;
	} = $props();

	const words = useWords();
</script>

<DialogBox
	bind:open
	place="top-[6dvh] left-1/2 max-h-[88dvh] w-[480px] -translate-x-1/2 overflow-y-auto"
	dir={words().direction}
>
	<Dialog.Title class="font-serif text-lg font-semibold">{title}</Dialog.Title>
	<Dialog.Description class="pt-1 pb-3">{text}</Dialog.Description>
	<form
		class="grid gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			ondo();
		}}
	>
		{@render children()}
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
		<p class="flex flex-wrap gap-2">
			<button class="button large {grave ? 'grave' : 'primary'}" disabled={busy}>{button}</button><Dialog.Close
				class="button large">{words()('back')}</Dialog.Close
			>
		</p>
	</form>
</DialogBox>
