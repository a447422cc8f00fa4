<script lang="ts">
	import { Dialog } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** The frame of a dialog over a dimmed page. `place`: where it stands and how large it is; title and text go inside. */
	let {
		open = $bindable(false),
		place,
		dir,
		onOpenChange,
		children
	}: {
		open?: boolean;
		place: string;
		dir?: 'ltr' | 'rtl';
		onOpenChange?: (open: boolean) => void;
		children: Snippet;
	} = $props();
</script>

<Dialog.Root bind:open {onOpenChange}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
		<Dialog.Content
			class="fixed z-50 max-w-[94vw] rounded-sm border border-hairline bg-sheet p-6 shadow-(--float) {place}"
			{dir}
		>
			{@render children()}
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
