<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import { Combobox } from 'bits-ui';
	import { folded } from '../../core/folded';
	import Offers from './Offers.svelte';

	/** One of many, found by typing a part of it. Within a form it goes along under `name`. */
	let {
		label,
		value,
		options,
		name,
		onchoose
	}: {
		label: string;
		value: string;
		/** value and words */
		options: readonly (readonly [value: string, words: string])[];
		name?: string;
		onchoose?: (value: string) => void;
	} = $props();

	/** So many are shown at once; more than anybody reads. */
	const MOST = 60;
	const uid = $props.id();
	let held = $derived(value);
	let typed = $state<string | null>(null);
	let open = $state(false);
	let field = $state<HTMLInputElement | null>(null);
	const words = (of: string) => options.find(([one]) => one === of)?.[1] ?? of;
	const found = $derived.by(() => {
		const parts = folded(typed ?? '')
			.split(/[\s/_]+/)
			.filter(Boolean);
		const hits = options.filter(([, said]) => parts.every((part) => folded(said).includes(part)));
		return typed === null ? [...hits].sort(([a], [b]) => Number(b === held) - Number(a === held)) : hits;
	});

	function choose(now: string) {
		typed = null;
		if (now === '') return;
		held = now;
		onchoose?.(now);
	}
</script>

<div class="min-w-0">
	<label for="{uid}-field" class="block pb-1">{label}</label>
	{#if name}<input type="hidden" {name} value={held} />{/if}
	<Combobox.Root
		type="single"
		value={held}
		onValueChange={choose}
		inputValue={typed ?? words(held)}
		bind:open
		onOpenChange={(now) => {
			// what was typed and not chosen is gone
			if (now) return;
			typed = null;
			if (field) field.value = words(held);
		}}
	>
		<Combobox.Input
			bind:ref={field}
			id="{uid}-field"
			class="input"
			autocomplete="off"
			spellcheck="false"
			oninput={(event) => {
				typed = event.currentTarget.value;
				open = true;
			}}
			onclick={(event) => {
				event.currentTarget.select();
				open = true;
			}}
		/>
		<Offers {field} label="What has these letters">
			{#each found.slice(0, MOST) as [one, said] (one)}
				<Combobox.Item
					value={one}
					label={said}
					class="flex min-h-7 cursor-pointer items-center gap-2 rounded-sm px-2 py-1 outline-none data-highlighted:bg-wash"
				>
					{#snippet children({ selected })}
						<Check size={14} class={selected ? 'shrink-0' : 'invisible shrink-0'} aria-hidden="true" />{said}
					{/snippet}
				</Combobox.Item>
			{:else}<p class="px-2 py-1 text-quiet">Nothing has these letters.</p>{/each}
			{#if found.length > MOST}<p class="px-2 py-1 text-[13px] text-quiet">
					{found.length - MOST} more: go on typing.
				</p>{/if}
		</Offers>
	</Combobox.Root>
</div>
