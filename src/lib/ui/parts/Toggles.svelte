<script lang="ts" generics="Value extends string">
	import { ToggleGroup } from 'bits-ui';

	/** How something is shown or settled: buttons side by side, one of them pressed; one stop for Tab, arrows between them. */
	let {
		label,
		value,
		options,
		onchoose
	}: {
		/** for those who can't see; what stands around says it */
		label: string;
		/** '' while none of them is */
		value: Value | '';
		options: readonly (readonly [value: Value, words: string])[];
		onchoose: (value: Value) => void;
	} = $props();
</script>

<ToggleGroup.Root
	type="single"
	aria-label={label}
	class="flex flex-wrap gap-1"
	bind:value={
		() => value,
		(now) => {
			// pressed once more it stays as it is
			if (now !== '') onchoose(now as Value);
		}
	}
>
	{#each options as [one, words] (one)}
		<ToggleGroup.Item
			value={one}
			class="button border-hairline! data-[state=on]:border-thread! data-[state=on]:bg-wash data-[state=on]:font-semibold"
			>{words}</ToggleGroup.Item
		>
	{/each}
</ToggleGroup.Root>
