<script lang="ts">
	import type { Stumbles } from '../../server/pace';
	import More from '../parts/More.svelte';
	import { whyRefused } from './why-refused';

	/** The fields of a template at which people stumble, the worst first. */
	let { stumbles }: { stumbles: Stumbles[] } = $props();

	const MOST = 4;
	const times = (n: number) => (n === 1 ? 'once' : `${n} times`);
	const said = ({ refused, back, left, declined, visits, seconds }: Stumbles) =>
		[
			...refused.map(({ code, n }) => `refused ${times(n)} (${whyRefused(code)})`),
			back > 0 ? `turned back to ${times(back)}` : '',
			left > 0 ? `left there for good ${times(left)}` : '',
			declined > 0 ? `declined there ${times(declined)}` : '',
			`${times(visits)} at it, ${seconds < 1 ? 'under a second' : `${seconds} s`} each`
		]
			.filter(Boolean)
			.join(' · ');
</script>

{#snippet rows(some: Stumbles[])}
	<ul>
		{#each some as one (one.field)}<li class="py-1">
				<b>{one.label}</b><br /><span class="text-[14px] text-quiet">{said(one)}</span>
			</li>{/each}
	</ul>
{/snippet}

<section aria-labelledby="stumbles" class="border-t border-hairline py-2">
	<h3 id="stumbles" class="font-semibold">Where people stumble</h3>
	{@render rows(stumbles.slice(0, MOST))}
	{#if stumbles.length > MOST}<More label="{stumbles.length - MOST} more">{@render rows(stumbles.slice(MOST))}</More
		>{/if}
</section>
