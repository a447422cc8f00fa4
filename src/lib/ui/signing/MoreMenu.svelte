<script lang="ts">
	import type Menu from '../parts/Menu.svelte';
	import type { MenuEntry } from '../parts/menu';

	/** The signing page's one menu; what draws it is fetched when somebody reaches for it. */
	let { label, entries }: { label: string; entries: MenuEntry[] } = $props();

	let List = $state.raw<typeof Menu | null>(null);
	let open = $state(false);
	const look = 'flex size-[44px] cursor-pointer items-center justify-center rounded-sm text-xl hover:bg-wash';

	async function reach() {
		List = (await import('../parts/Menu.svelte')).default;
		open = true;
	}
</script>

{#if List}<List label="⋯" hint={label} {look} large bind:open {entries} />
{:else}<button type="button" class={look} aria-label={label} aria-haspopup="menu" aria-expanded="false" onclick={reach}
		>⋯</button
	>{/if}
