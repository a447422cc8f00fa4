<script lang="ts">
	import type { Bench } from './bench.svelte';

	/** The people who can be given a field, as options of a select. `except`: one who is left out. */
	let { bench, except }: { bench: Bench; except?: string | null } = $props();
</script>

{#each bench.actors.filter((p) => p.id !== except) as person (person.id)}
	<option value={person.id}>{person.name || person.role || 'No name yet'}</option>
{/each}
