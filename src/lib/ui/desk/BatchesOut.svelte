<script lang="ts">
	import { daysBetween } from '../../core/calendar';
	import type { BatchLine } from '../../core/packet';
	import { day } from '../dates';
	import { said } from './having';

	/** Batches that have something out, a line each: how many have, how many haven't, and what to know of those. */
	let { batches, zone, now }: { batches: BatchLine[]; zone: string; now: string } = $props();

	/** What they wait for, as words with their tone; the ones that want somebody first. */
	function notes({ unreachable, longest, until }: BatchLine): [words: string, tone: string][] {
		const days = longest ? daysBetween(longest, now) : 0;
		const all: [string, string][] = [
			[unreachable > 0 ? `${unreachable} unreachable` : '', 'text-brick'],
			[days > 0 ? `longest wait ${said(days)}` : '', days >= 7 ? 'text-copper' : 'text-quiet'],
			[until ? `until ${day(until, zone, now)}` : '', 'text-quiet']
		];
		return all.filter(([words]) => words !== '');
	}
	const WIDTH = 150;
	/** where the line turns from done to not yet */
	const share = ({ have, ended, out }: BatchLine) => (WIDTH * (have + ended)) / (have + ended + out);
</script>

{#if batches.length > 0}
	<section aria-labelledby="batches-out" class="pb-6">
		<h2 id="batches-out" class="border-b border-ink pb-2 text-[17px]">
			Batches <span class="pl-1 text-[14px] font-normal text-quiet">that have something out</span>
		</h2>
		<ul>
			{#each batches as batch (batch.id)}
				<li class="flex flex-wrap items-start gap-x-6 gap-y-1 border-b border-hairline px-1.5 py-2">
					<div class="min-w-0 flex-[1_1_220px]">
						<a
							class="font-semibold no-underline hover:underline"
							href={batch.mine ? `/batches/${batch.id}?show=out` : `/desk?batch=${batch.id}`}>{batch.name}</a
						><br /><span class="text-[13px] text-quiet">{batch.template}</span>
					</div>
					<svg width={WIDTH + 14} height="20" aria-hidden="true" class="shrink-0 overflow-visible">
						<path d="M4 10H{4 + share(batch)}" class="stroke-moss" stroke-width="4" />
						<path d="M{4 + share(batch)} 10H{WIDTH + 4}" class="rest" stroke-width="1.5" stroke-dasharray="2 3" />
						<circle cx={4 + share(batch)} cy="10" r="6" class="fill-sheet stroke-thread" stroke-width="2.5" />
					</svg>
					<p class="flex-[1_1_220px]">
						<b class="text-moss">{batch.have}</b> have, <b class="text-thread">{batch.out}</b>
						haven’t{#if batch.ended > 0}, {batch.ended}
							ended otherwise{/if}
						<br /><span class="text-[13px]"
							>{#each notes(batch) as [words, tone], i (i)}{i > 0 ? ' · ' : ''}<span class={tone}>{words}</span
								>{/each}</span
						>
					</p>
				</li>
			{/each}
		</ul>
	</section>
{/if}

<style>
	.rest {
		stroke: var(--hollow);
	}
</style>
