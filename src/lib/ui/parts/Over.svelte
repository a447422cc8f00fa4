<script lang="ts">
	import { Popover } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import { FLOATS, overOf } from './over';

	/** A button that opens a small sheet beside it, over the page. */
	let {
		label,
		hint,
		called = hint,
		look = 'button',
		wide = false,
		open = $bindable(false),
		face,
		children
	}: {
		/** what stands on the button, where `face` draws nothing else */
		label: string;
		/** what the button and the sheet are called where the label says too little */
		hint?: string;
		/** what the button alone is called; null: what stands on it */
		called?: string | null | undefined;
		look?: string;
		wide?: boolean;
		open?: boolean;
		face?: Snippet;
		children: Snippet;
	} = $props();
	let button = $state<HTMLElement | null>(null);
</script>

<Popover.Root bind:open>
	<Popover.Trigger bind:ref={button} class={look} aria-label={called}
		>{#if face}{@render face()}{:else}{label}{/if}</Popover.Trigger
	>
	<Popover.Portal to={overOf(button)}>
		<Popover.Content
			align="end"
			sideOffset={6}
			collisionPadding={8}
			role="dialog"
			aria-label={hint ?? label}
			class="z-40 max-h-[70vh] {wide ? 'w-96' : 'w-64'} max-w-[94vw] overflow-y-auto p-3 outline-none {FLOATS}"
		>
			{@render children()}
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
