<script lang="ts">
	/** The search of a list: asks the server by the address, so that it can be linked to and gone back to. */
	let {
		label,
		placeholder,
		value,
		keep = {},
		wide = false
	}: {
		label: string;
		placeholder: string;
		value: string;
		/** what else of the address holds on */
		keep?: Record<string, string>;
		wide?: boolean;
	} = $props();
	/** bound, so that what is typed before the page answers stays when Svelte takes it over */
	let typed = $derived(value);
</script>

<form method="GET" role="search" class="flex max-w-full gap-2">
	{#each Object.entries(keep) as [name, kept] (name)}<input type="hidden" {name} value={kept} />{/each}
	<label class="unseen" for="q">{label}</label>
	<input
		id="q"
		name="q"
		class="input min-w-0 shrink {wide ? 'w-80' : 'w-56'}"
		type="search"
		bind:value={typed}
		{placeholder}
	/>
	<button class="button">Search</button>
</form>
