<script lang="ts">
	import { Combobox } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import { FLOATS, overOf } from './over';

	/** What opens under a field that offers as one types: as wide as the field, over the sheet the field stands in. */
	let {
		field,
		label,
		low = false,
		children
	}: {
		field: HTMLElement | null;
		label: string;
		/** a few lines high, whatever room there is */
		low?: boolean;
		children: Snippet;
	} = $props();
</script>

<Combobox.Portal to={overOf(field)}>
	<Combobox.Content
		sideOffset={4}
		collisionPadding={8}
		aria-label={label}
		class="z-[60] w-(--bits-combobox-anchor-width) overflow-y-auto p-1 {low
			? 'max-h-60'
			: 'max-h-[min(50vh,var(--bits-combobox-content-available-height))]'} {FLOATS}"
	>
		<Combobox.Viewport>{@render children()}</Combobox.Viewport>
	</Combobox.Content>
</Combobox.Portal>
