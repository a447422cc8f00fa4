<script lang="ts">
	import type { Making } from './making.svelte';

	/** What is wrong with one thing, beside it. */
	let { making, at }: { making: Making; at: string } = $props();
</script>

{#each making.faultsAt(at) as fault (fault.code + fault.say)}<p class="pt-1 {fault.mild ? 'text-copper' : 'wrong'}">
		{fault.say}
	</p>{/each}
