<script lang="ts">
	/** The organisation's logo, or its colour with the thread on it. */
	let { logo, colour, name }: { logo: boolean; colour: string; name: string } = $props();
</script>

<span
	class="grid size-[34px] shrink-0 place-items-center overflow-hidden rounded-sm"
	style:background={logo ? 'white' : colour}
>
	{#if logo}<img src="/logo" alt={name} class="max-h-full max-w-full" />
	{:else}<svg width="26" height="14" aria-hidden="true"
			><line x1="5" x2="17" y1="7" y2="7" stroke="#fffefa" stroke-width="2" /><circle
				cx="5"
				cy="7"
				r="3.5"
				fill="#fffefa"
			/><circle cx="20" cy="7" r="4" fill="none" stroke="#fffefa" stroke-width="2" /></svg
		>{/if}
</span>
