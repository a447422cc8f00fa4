<script lang="ts">
	import StopNode from './StopNode.svelte';
	import type { Thread, ThreadPerson } from '../../core/packet';
	import { drawn } from './stops';

	/** The route in full: names, duty and since when; each stop can be reached by keyboard and is read as a sentence. */
	let { thread, now, ended = false }: { thread: Thread; now: string; ended?: boolean } = $props();

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
		<!-- svelte-ignore a11y_no_noninteractive_tabindex (the design asks that every stop can be reached and heard) -->
		<li class="relative min-w-36 flex-1 pr-4" tabindex="0" aria-label={stop.sentence}>
			<svg class="block h-5 w-full overflow-visible" aria-hidden="true">
				{#if i < stops.length - 1}<line x1="20" x2="100%" y1="10" y2="10" class={done ? 'solid' : 'dotted'} />{/if}
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
