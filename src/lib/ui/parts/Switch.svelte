<script lang="ts">
	import { Switch } from 'bits-ui';

	/** Something that is on or off, and is so at once. For what is gathered up and sent later, see Check. */
	let {
		label,
		on,
		disabled = false,
		onturn
	}: { label: string; on: boolean; disabled?: boolean; onturn: (on: boolean) => void } = $props();
	const uid = $props.id();
</script>

<span class="inline-flex min-h-7 max-w-full items-center gap-2">
	<Switch.Root
		id={uid}
		bind:checked={() => on, onturn}
		{disabled}
		aria-labelledby="{uid}-label"
		class="relative inline-flex h-5 w-9 shrink-0 cursor-pointer items-center rounded-full border border-line bg-sheet px-[3px] before:absolute before:-inset-1 before:content-[''] disabled:cursor-default disabled:opacity-50 data-[state=checked]:border-thread data-[state=checked]:bg-thread"
	>
		<Switch.Thumb
			class="block size-3 rounded-full bg-quiet motion-safe:transition-transform data-[state=checked]:translate-x-4 data-[state=checked]:bg-on-thread rtl:data-[state=checked]:-translate-x-4"
		/>
	</Switch.Root>
	<label for={uid} id="{uid}-label" class="cursor-pointer">{label}</label>
</span>
