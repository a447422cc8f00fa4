<script lang="ts">
	import { DropdownMenu } from 'bits-ui';
	import type { MenuEntry } from './menu';
	import { FLOATS, overOf } from './over';

	/** A button that opens a list of deeds. What is grave comes last, whatever the order here. */
	let {
		label,
		hint,
		look = 'button',
		entries,
		heading,
		none = 'Nothing here.',
		disabled = false,
		large = false,
		open = $bindable(false),
		onopen
	}: {
		/** what stands on the button */
		label: string;
		/** what the button is called where its face says too little */
		hint?: string;
		/** classes of the button */
		look?: string;
		entries: MenuEntry[];
		heading?: string;
		/** what stands there while it has no entries */
		none?: string;
		disabled?: boolean;
		/** for fingers, as on the signing page */
		large?: boolean;
		open?: boolean;
		onopen?: () => void;
	} = $props();

	const inOrder = $derived([...entries.filter((one) => !one.grave), ...entries.filter((one) => one.grave)]);
	const firstGrave = $derived(inOrder.findIndex((one) => one.grave));
	const row = $derived(
		`${large ? 'min-h-[44px] content-center ' : ''}block w-full cursor-pointer rounded-sm px-3 py-1.5 text-left no-underline data-highlighted:bg-wash outline-none`
	);
	let button = $state<HTMLElement | null>(null);
</script>

{#snippet said(entry: MenuEntry)}
	{entry.name}{#if entry.note}<span class="block text-[13px] text-quiet">{entry.note}</span>{/if}
{/snippet}

<DropdownMenu.Root bind:open onOpenChange={(now) => now && onopen?.()}>
	<DropdownMenu.Trigger bind:ref={button} class={look} {disabled} aria-label={hint}>{label}</DropdownMenu.Trigger>
	<DropdownMenu.Portal to={overOf(button)}>
		<DropdownMenu.Content
			align="end"
			sideOffset={6}
			collisionPadding={8}
			class="z-40 max-h-[70vh] min-w-56 max-w-80 overflow-y-auto p-1.5 {FLOATS}"
		>
			{#if heading}<p class="px-3 py-1 text-[14px] text-quiet">{heading}</p>{/if}
			{#each inOrder as entry, i (entry.name)}
				{#if i === firstGrave && i > 0}<DropdownMenu.Separator class="my-1.5 h-px bg-hairline" />{/if}
				<DropdownMenu.Item onSelect={() => void entry.run?.()} class={entry.grave ? `${row} text-brick` : row}>
					{#snippet child({ props })}
						{#if entry.to !== undefined}
							<a {...props} href={entry.to} download={entry.download ? '' : undefined}>{@render said(entry)}</a>
						{:else}<div {...props}>{@render said(entry)}</div>{/if}
					{/snippet}
				</DropdownMenu.Item>
			{:else}<p class="px-3 py-1.5 text-quiet">{none}</p>{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
