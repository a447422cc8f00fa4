<script lang="ts" generics="T extends string">
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
			<label class="flex items-center gap-2"
				><input
					type="checkbox"
					checked={!locked.includes(what)}
					onchange={(e) => onchange(e.currentTarget.checked ? locked.filter((one) => one !== what) : [...locked, what])}
				/>
				{name}</label
			>
		{/each}
	</div>
</fieldset>
