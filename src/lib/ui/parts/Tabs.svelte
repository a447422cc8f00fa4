<script lang="ts">
	import { Tabs } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** Several sheets in one place, one of them seen: arrows go from one to the next. */
	let {
		label,
		value,
		options,
		onchoose,
		look = '',
		beside,
		children
	}: {
		label: string;
		value: string;
		/** value and words */
		options: readonly (readonly [value: string, words: string])[];
		onchoose: (value: string) => void;
		/** of the sheet */
		look?: string;
		/** what stands in the row of tabs, behind them */
		beside?: Snippet;
		children: Snippet;
	} = $props();
</script>

<Tabs.Root bind:value={() => value, onchoose} class="contents">
	<div class="flex flex-wrap items-center gap-3 border-b border-hairline px-5 py-2">
		<Tabs.List aria-label={label} class="flex flex-wrap gap-1">
			{#each options as [one, words] (one)}
				<Tabs.Trigger
					value={one}
					class="button border-transparent! data-[state=active]:border-thread! data-[state=active]:bg-wash data-[state=active]:font-semibold"
					>{words}</Tabs.Trigger
				>
			{/each}
		</Tabs.List>
		{@render beside?.()}
	</div>
	<Tabs.Content {value} class={look}>{@render children()}</Tabs.Content>
</Tabs.Root>
