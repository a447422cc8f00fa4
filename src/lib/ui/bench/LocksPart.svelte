<script lang="ts" generics="T extends string">
	import Check from '../parts/Check.svelte';

	/** What whoever uses a template may change of one of its parts. */
	let {
		names,
		locked,
		onchange
	}: { names: readonly (readonly [T, string])[]; locked: readonly T[]; onchange: (locked: T[]) => void } = $props();
</script>

<fieldset>
	<legend class="pb-1">A sender may change</legend>
	<div class="flex flex-wrap gap-x-4 gap-y-1">
		{#each names as [what, name] (what)}
			<Check
				label={name}
				checked={!locked.includes(what)}
				onchange={(on) => onchange(on ? locked.filter((one) => one !== what) : [...locked, what])}
			/>
		{/each}
	</div>
</fieldset>
