<script lang="ts">
	import type { Likely } from '../../core/packet';
	import { noDateInWords, UNUSUAL } from '../../core/pace';
	import { day } from '../dates';

	/** When something will likely be done, under its last day; where nobody can say, why. Nothing where too few like it have ended. */
	let { likely, zone, now }: { likely: Likely | null; zone: string; now: string } = $props();
	const late = $derived(likely !== null && likely.chance !== null && likely.chance >= 0.5);
	const odd = $derived(late || (likely !== null && !likely.middle && likely.unusual >= UNUSUAL));
	const said = $derived.by(() => {
		if (!likely || likely.tooFew) return '';
		if (likely.middle) return `likely ${day(likely.middle, zone, now)}${late ? ', too late' : ''}`;
		return noDateInWords(likely.unusual);
	});
</script>

{#if said}<br /><span class="text-[13px] whitespace-nowrap {odd ? 'text-copper' : 'text-quiet'}">{said}</span>{/if}
