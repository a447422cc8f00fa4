<script lang="ts">
	import type { HTMLInputAttributes } from 'svelte/elements';

	/** One thing that a {@link Gate} asks for: its label over its place, which must be filled in. */
	let {
		label,
		mono = false,
		value = $bindable(),
		...rest
	}: { label: string; mono?: boolean } & HTMLInputAttributes = $props();
</script>

<label class="block pb-4"
	>{label}<input class="input mt-1 {mono ? 'font-mono' : ''}" required bind:value {...rest} /></label
>
