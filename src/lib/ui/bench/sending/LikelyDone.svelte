<script lang="ts">
	import type { LikelyCourse } from '../../../core/packet';
	import { FEW, likelyInWords } from '../../../core/pace';
	import { day, rightNow } from '../../dates';
	import type { Bench } from '../bench.svelte';

	/** When what is about to go will likely be done, from what is like it; and that its last day is too near, where it is. */
	let { bench, zone }: { bench: Bench; zone: string } = $props();

	let seen = $state.raw<LikelyCourse | null>(null);
	$effect(() => {
		let gone = false;
		void bench.flush().then(async () => {
			const response = await fetch(`/bench/${bench.id}/likely`).catch(() => null);
			// it is a help, not a condition: where it can't be had, it is left out
			if (response?.ok && !gone) seen = (await response.json()) as LikelyCourse;
		});
		return () => (gone = true);
	});
	const now = rightNow();
	const of100 = (share: number) => Math.round(share * 100);
</script>

{#if seen}
	<p class="mt-4 border-l-2 pl-4 {seen.chance !== null && seen.chance >= 0.5 ? 'border-copper' : 'border-hairline'}">
		{#if seen.tooFew}
			Too few like it have ended to say when it will be done.
		{:else if seen.middle === null}
			Nobody can say when it will be done: half of what is like it took longer than the records reach.
		{:else}
			It will likely be done {likelyInWords(seen.whole, (at) => day(at, zone, now))}. {seen.restsOn === 0
				? 'That rests on everything that the office has sent.'
				: `That rests on ${seen.restsOn} like it${seen.restsOn < FEW ? ', and on the office’s others' : ''}.`}
			{#if seen.chance !== null && seen.chance >= 0.25}
				<b>Its last day is near for it</b>: {of100(seen.chance)} of 100 like it would not be done by then.
			{/if}
		{/if}
	</p>
{/if}
