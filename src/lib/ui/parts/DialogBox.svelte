<script lang="ts">
	import { FLOATS } from './over';
	import { Dialog } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** The frame of a dialog over a dimmed page. `place`: where it stands and how large it is; title and text go inside. */
	let {
		open = $bindable(false),
		place = '',
		whole = false,
		dir,
		onOpenChange,
		onkeydown,
		children
	}: {
		open?: boolean;
		place?: string;
		/** fills the page but for its edge, and lays itself out */
		whole?: boolean;
		dir?: 'ltr' | 'rtl';
		onOpenChange?: (open: boolean) => void;
		onkeydown?: (event: KeyboardEvent) => void;
		children: Snippet;
	} = $props();
</script>

<Dialog.Root bind:open {onOpenChange}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
		<Dialog.Content
			class="fixed z-50 {FLOATS} {whole ? 'inset-4 flex flex-col' : 'max-w-[94vw] p-6'} {place}"
			{onkeydown}
			{dir}
		>
			{@render children()}
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
