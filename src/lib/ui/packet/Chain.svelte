<script lang="ts">
	import type { PacketView } from '../../core/packet';

	/** What was agreed first and its amendments, in their order, with the one that holds now. */
	let { chain }: { chain: NonNullable<PacketView['chain']> } = $props();
	const here = $derived(chain.find((link) => link.here));
	const holds = $derived(chain.find((link) => link.holds));
</script>

<nav aria-label="Amendments" class="my-1 border-l-[3px] border-thread bg-linen px-3 py-1.5 text-[14px]">
	{#if holds && !here?.holds}<p>
			What holds now is <a class="font-semibold text-thread underline" href="/packets/{holds.id}">{holds.reference}</a>.
		</p>{/if}
	<ol class="flex flex-wrap gap-x-3 gap-y-1">
		{#each chain as link, i (link.id)}
			<li
				class={link.status === 'completed' || link.status === 'out' || link.status === 'held'
					? ''
					: 'text-quiet line-through'}
			>
				{#if link.here}<b class="font-mono" aria-current="page">{link.reference}</b>{:else}<a
						class="font-mono text-thread underline"
						href="/packets/{link.id}">{link.reference}</a
					>{/if}
				<span class="text-quiet"
					>{i === 0 ? 'agreed first' : `amendment ${i}`}{link.holds
						? ', holds now'
						: link.status === 'completed'
							? ''
							: `, ${link.status}`}</span
				>
			</li>
		{/each}
	</ol>
</nav>
