<script lang="ts" generics="Value extends string">
	import { RadioGroup } from 'bits-ui';

	/** One of two or three that all stand there to be read. For more, see Choice. */
	let {
		label,
		unseen = false,
		value = $bindable(),
		options,
		name,
		disabled = false
	}: {
		label: string;
		/** the label is for those who can't see; what stands around says it */
		unseen?: boolean;
		value: Value;
		/** value and words */
		options: readonly (readonly [value: Value, words: string])[];
		/** within a form it goes along under it */
		name?: string;
		disabled?: boolean;
	} = $props();
	const uid = $props.id();
</script>

<span id={uid} class={unseen ? 'unseen' : 'block pb-1'}>{label}</span>
<RadioGroup.Root
	aria-labelledby={uid}
	bind:value={() => value, (now) => (value = now as Value)}
	{name}
	{disabled}
	class="flex flex-wrap gap-x-4 gap-y-2"
>
	{#each options as [one, words] (one)}
		<span class="inline-flex items-center gap-2">
			<RadioGroup.Item
				id="{uid}-{one}"
				value={one}
				aria-labelledby="{uid}-{one}-label"
				class="group relative inline-flex size-5 shrink-0 cursor-pointer items-center justify-center rounded-full border border-line bg-sheet before:absolute before:-inset-1 before:content-[''] disabled:cursor-default disabled:opacity-50 data-[state=checked]:border-thread"
			>
				<span class="hidden size-2.5 rounded-full bg-thread group-data-[state=checked]:block"></span>
			</RadioGroup.Item>
			<label for="{uid}-{one}" id="{uid}-{one}-label" class="cursor-pointer">{words}</label>
		</span>
	{/each}
</RadioGroup.Root>
