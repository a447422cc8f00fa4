<script lang="ts">
	import { Dialog } from 'bits-ui';
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

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
		<Dialog.Content
			class="fixed top-[6dvh] left-1/2 z-50 max-h-[88dvh] w-[480px] max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-sm border border-hairline bg-sheet p-6 shadow-(--float)"
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
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
