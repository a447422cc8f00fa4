<script lang="ts">
	import StopNode from './StopNode.svelte';
	import type { LikelyCourse, Thread, ThreadPerson } from '../../core/packet';
	import { likelyInWords, noDateInWords } from '../../core/pace';
	import { day } from '../dates';
	import { drawn } from './stops';

	/**
	 * The route in full: names, duty and since when, and when what is to come will likely be done; each stop can be reached by keyboard
	 * and is read as a sentence.
	 */
	let {
		thread,
		now,
		ended = false,
		likely = null,
		zone = 'UTC'
	}: { thread: Thread; now: string; ended?: boolean; likely?: LikelyCourse | null; zone?: string } = $props();

	const stops = $derived(drawn(thread, now));
	const WORDS: Record<string, string> = {
		done: 'done',
		opened: 'opened',
		notified: 'has it',
		unreachable: 'unreachable',
		declined: 'declined',
		held: 'held',
		skipped: 'not needed',
		copied: 'has the copies',
		waiting: ''
	};
	/** when a stop will likely be done, in words and as the weight of its line: the less sure, the thinner */
	function ahead(place: number): { words: string; weight: number } | null {
		const dates = likely?.tooFew ? null : likely?.stops.find((one) => one.place === place)?.dates;
		const words = dates && !ended ? likelyInWords(dates, (at) => day(at, zone, now)) : '';
		if (!dates || ended) return null;
		// of what comes after a stop of which nobody can say when, there is nothing more to say
		if (words === '')
			return place === likely!.stops[0]!.place ? { words: noDateInWords(likely!.unusual), weight: 0.75 } : null;
		const days = dates.late && dates.early ? (Date.parse(dates.late) - Date.parse(dates.early)) / 86_400_000 : Infinity;
		return {
			words: `likely ${words}`,
			weight: days <= 3 ? 3 : days <= 10 ? 2 : days <= 30 ? 1.25 : 0.75
		};
	}
	const below = (person: ThreadPerson, days: number) =>
		[
			person.duty,
			WORDS[person.standing],
			!ended && days > 0 && ['notified', 'opened', 'unreachable'].includes(person.standing) ? `${days} d` : ''
		]
			.filter(Boolean)
			.join(' · ');
</script>

<ol class="flex gap-0 overflow-x-auto px-1 pt-1 pb-2">
	{#each stops as stop, i (i)}
		{@const done = stop.node === 'done' || stop.node === 'left out'}
		{@const when = ahead(i)}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex (the design asks that every stop can be reached and heard) -->
		<li
			class="relative min-w-36 flex-1 pr-4"
			tabindex="0"
			aria-label={when ? `${stop.sentence}; ${when.words}` : stop.sentence}
		>
			<svg class="block h-5 w-full overflow-visible" aria-hidden="true">
				{#if i < stops.length - 1}<line
						x1="20"
						x2="100%"
						y1="10"
						y2="10"
						class={done ? 'solid' : 'dotted'}
						style:stroke-width={when?.weight}
					/>{/if}
				<g transform="translate(10 10)">
					<StopNode node={ended && stop.node === 'here' ? 'to come' : stop.node} size={7} weight={3} />
				</g>
			</svg>
			{#if stop.people.some((p) => p.anyOne)}<span class="block text-[13px] leading-4 text-quiet" aria-hidden="true"
					>any one of these</span
				>{/if}
			{#each stop.people as person (person.id)}
				<span class="block text-[14px] leading-5 font-semibold" aria-hidden="true">{person.name}</span>
				<span class="block text-[13px] leading-4 text-quiet" aria-hidden="true">{below(person, stop.days)}</span>
			{/each}
			{#if when}<span class="block pt-0.5 text-[13px] leading-4 text-thread" aria-hidden="true">{when.words}</span>{/if}
		</li>
	{/each}
</ol>

<style>
	line {
		stroke-width: 2;
	}
	line.solid {
		stroke: var(--moss);
	}
	line.dotted {
		stroke: var(--hollow);
		stroke-dasharray: 2 4;
	}
</style>
