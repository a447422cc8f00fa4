<script lang="ts">
	import { Tooltip } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import { overOf } from './over';

	/** A button that is drawn and not written: its name stands beside it while the mouse or the keyboard is on it. */
	let {
		name,
		look = 'button px-2!',
		disabled = false,
		onclick,
		children
	}: {
		name: string;
		look?: string;
		disabled?: boolean;
		onclick: (event: MouseEvent) => void;
		/** what is drawn */
		children: Snippet;
	} = $props();
	let button = $state<HTMLElement | null>(null);
</script>

<Tooltip.Provider delayDuration={350}>
	<Tooltip.Root>
		<Tooltip.Trigger bind:ref={button} class={look} aria-label={name} {disabled} {onclick}
			>{@render children()}</Tooltip.Trigger
		>
		<Tooltip.Portal to={overOf(button)}>
			<Tooltip.Content
				sideOffset={4}
				collisionPadding={8}
				class="z-[70] rounded-sm bg-ink px-2 py-1 text-[13px] text-sheet">{name}</Tooltip.Content
			>
		</Tooltip.Portal>
	</Tooltip.Root>
</Tooltip.Provider>
