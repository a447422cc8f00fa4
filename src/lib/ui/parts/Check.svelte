<script lang="ts">
	import CheckIcon from '@lucide/svelte/icons/check';
	import Minus from '@lucide/svelte/icons/minus';
	import { Checkbox } from 'bits-ui';

	/** A box to tick. Within a form it goes along under `name`, as "on", where it is ticked. */
	let {
		label,
		unseen = false,
		checked = $bindable(false),
		some = false,
		name,
		value,
		disabled = false,
		onchange
	}: {
		label: string;
		/** the label is for those who can't see; what stands around says it */
		unseen?: boolean;
		checked?: boolean;
		/** some of what it stands for are ticked, not all */
		some?: boolean;
		name?: string;
		value?: string;
		disabled?: boolean;
		/** `shift`: the key was held, for whoever chooses from one to another */
		onchange?: (checked: boolean, shift: boolean) => void;
	} = $props();

	const uid = $props.id();
	let shift = false;
</script>

<span class="inline-flex max-w-full items-center gap-2">
	<Checkbox.Root
		id={uid}
		bind:checked
		indeterminate={some && !checked}
		{name}
		{value}
		{disabled}
		aria-labelledby="{uid}-label"
		onclickcapture={(event: MouseEvent) => (shift = event.shiftKey)}
		onCheckedChange={(now) => onchange?.(now, shift)}
		class="relative inline-flex size-5 shrink-0 cursor-pointer items-center justify-center rounded-sm border border-line bg-sheet text-on-thread before:absolute before:-inset-1 before:content-[''] disabled:cursor-default disabled:opacity-50 data-[state=checked]:border-thread data-[state=checked]:bg-thread data-[state=indeterminate]:border-thread data-[state=indeterminate]:bg-thread"
	>
		{#snippet children({ checked: ticked, indeterminate })}
			{#if indeterminate}<Minus size={14} aria-hidden="true" />
			{:else if ticked}<CheckIcon size={14} aria-hidden="true" />{/if}
		{/snippet}
	</Checkbox.Root>
	<label for={uid} id="{uid}-label" class={unseen ? 'unseen' : 'cursor-pointer'}>{label}</label>
</span>
