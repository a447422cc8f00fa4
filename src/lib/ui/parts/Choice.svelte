<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { Select } from 'bits-ui';
	import { tick } from 'svelte';
	import { FLOATS, overOf } from './over';

	/**
	 * One of a few, from a list that opens: by mouse, touch, arrows or the first letters. Within a form it goes along under `name`.
	 * For one of many, see Pick.
	 */
	let {
		label,
		unseen = false,
		value,
		options,
		name,
		id,
		empty = 'choose',
		narrow = false,
		plain = false,
		disabled = false,
		large = false,
		invalid = false,
		open = $bindable(false),
		onchoose,
		onopen
	}: {
		label: string;
		/** the label is for those who can't see; what stands around says it */
		unseen?: boolean;
		value: string;
		/** value, words, and whether it can't be chosen now */
		options: readonly (readonly [value: string, words: string, shut?: boolean])[];
		name?: string;
		/** of the button, for whoever leads somebody to it */
		id?: string;
		/** what stands there while none of them is chosen */
		empty?: string;
		/** as wide as its words, not as its place */
		narrow?: boolean;
		/** without a frame, within a line of text */
		plain?: boolean;
		disabled?: boolean;
		/** for fingers, as on the signing page */
		large?: boolean;
		invalid?: boolean;
		open?: boolean;
		onchoose?: (value: string) => void;
		onopen?: () => void;
	} = $props();

	const uid = $props.id();
	/** an empty value is one like any other, which the package takes for none */
	const inner = (outer: string) => `=${outer}`;
	let held = $derived(value);
	const words = $derived(options.find(([one]) => one === held)?.[1] ?? empty);
	let field = $state<HTMLInputElement>();
	let button = $state<HTMLElement | null>(null);

	/** whether the last one was chosen by mouse or finger, who want the page's keys back */
	let pointed = false;

	async function choose(now: string) {
		if (pointed) setTimeout(() => button?.blur());
		const next = now.slice(1);
		if (next === held) return;
		held = next;
		// the form has it before whoever listens sends the form
		await tick();
		field?.dispatchEvent(new Event('change', { bubbles: true }));
		onchoose?.(next);
		// whoever keeps the value elsewhere may not have taken it
		if (onchoose) held = value;
	}
</script>

<div class={narrow ? 'inline-block max-w-full' : 'min-w-0'}>
	<span id="{uid}-label" class={unseen ? 'unseen' : 'block pb-1'}>{label}</span>
	{#if name}<input bind:this={field} type="hidden" {name} value={held} {disabled} />{/if}
	<Select.Root
		type="single"
		value={inner(held)}
		onValueChange={choose}
		bind:open
		onOpenChange={(now) => {
			if (!now) return;
			pointed = false;
			onopen?.();
		}}
		{disabled}
		items={options.map(([one, said, shut]) => ({ value: inner(one), label: said, disabled: shut }))}
	>
		<Select.Trigger
			bind:ref={button}
			id={id ?? `${uid}-at`}
			role="combobox"
			aria-labelledby="{uid}-label"
			aria-invalid={invalid || undefined}
			class="{large ? 'min-h-[44px]! text-[16px]' : ''} {plain
				? 'inline-flex min-h-6 items-center gap-1 text-[13px] text-quiet underline'
				: 'input flex items-center justify-between gap-2 text-left'} {narrow ? 'w-auto!' : 'w-full'} cursor-pointer"
		>
			<span class="truncate">{words}</span><ChevronDown size={14} class="shrink-0" aria-hidden="true" />
		</Select.Trigger>
		<Select.Portal to={overOf(button)}>
			<Select.Content
				onpointerdown={() => (pointed = true)}
				sideOffset={4}
				collisionPadding={8}
				class="z-[60] max-h-[min(60vh,var(--bits-select-content-available-height))] min-w-(--bits-select-anchor-width) max-w-[90vw] overflow-y-auto p-1 {FLOATS}"
				aria-label={label}
			>
				<Select.Viewport>
					{#each options as [one, said, shut] (one)}
						<Select.Item
							value={inner(one)}
							label={said}
							disabled={shut}
							class="flex {large
								? 'min-h-[44px]'
								: 'min-h-7'} cursor-pointer items-center gap-2 rounded-sm px-2 py-1 outline-none data-disabled:cursor-default data-disabled:text-quiet data-highlighted:bg-wash"
						>
							{#snippet children({ selected })}
								<Check size={14} class={selected ? 'shrink-0' : 'invisible shrink-0'} aria-hidden="true" />
								{said}
							{/snippet}
						</Select.Item>
					{:else}<p class="px-2 py-1 text-quiet">Nothing to choose.</p>{/each}
				</Select.Viewport>
			</Select.Content>
		</Select.Portal>
	</Select.Root>
</div>
