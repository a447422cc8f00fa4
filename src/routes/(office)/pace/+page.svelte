<script lang="ts">
	import { goto } from '$app/navigation';
	import {
		BAD_ENDS,
		badlyInWords,
		cameAfterInWords,
		comingInWords,
		comingWithin,
		daysFrom,
		EVERYTHING,
		howLongInWords,
		isBroad,
		lateInWords,
		NEAR,
		paceQuery,
		percent,
		PERIODS,
		whereInWords,
		type PaceAsked,
		type SideBySide,
		type Question
	} from '$lib/core/pace';
	import Filters from '$lib/ui/lists/Filters.svelte';
	import Answer from '$lib/ui/pace/Answer.svelte';
	import { badlyChart, barsChart, comingChart, howLongChart } from '$lib/ui/pace/charts';
	import Chart from '$lib/ui/parts/chart/Chart.svelte';
	import Toggles from '$lib/ui/parts/Toggles.svelte';

	let { data } = $props();
	const asked = $derived(data.asked);
	const seen = $derived(data.seen);
	const { now, before } = $derived(seen.packets);

	const go = (next: Partial<PaceAsked>) =>
		goto(`?${paceQuery({ ...asked, ...next })}`, { noScroll: true, keepFocus: true });
	const file = (question: Question) => `/pace/table?${paceQuery(asked)}&question=${encodeURIComponent(question)}`;
	const BY: [SideBySide, string][] = [
		['template', 'templates'],
		['duty', 'what is done'],
		['delivery', 'how it goes'],
		['language', 'language'],
		['part of day', 'when it came'],
		['hour', 'hour of sending']
	];
	const HELPED = [
		['reminded', 'A reminder'],
		['warned', 'A letter that the last day is near'],
		['texted', 'A text message']
	] as const;
	const helped = $derived(HELPED.filter(([touch]) => seen.helped?.[touch]));
	const sure = $derived(seen.where.sorts.filter(({ course }) => !course.few && course.half.days !== null));
	const late = $derived(seen.unusual.slice(0, 6));
</script>

<svelte:head><title>Pace · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-[1320px] px-6 py-4">
	<div class="flex flex-wrap items-center gap-x-5 gap-y-2 pb-3">
		<h1 class="pr-2 font-serif text-[22px]">Pace</h1>
		<Filters of="sent" hint="Filter what is counted" filter={asked.filter} onfilter={(filter) => go({ filter })} />
		<Toggles
			label="Sent within"
			value={String(asked.weeks)}
			options={PERIODS.map((weeks): [string, string] => [String(weeks), weeks === 52 ? 'a year' : `${weeks} weeks`])}
			onchoose={(weeks) => go({ weeks: Number(weeks) as PaceAsked['weeks'] })}
		/>
		<Toggles
			label="Days counted"
			value={asked.clock}
			options={[
				['all', 'all days'],
				['working', 'working days']
			]}
			onchoose={(clock) => go({ clock })}
		/>
		{#if paceQuery(asked) !== paceQuery(EVERYTHING)}<a class="pb-1 underline" href="/pace">Everything again</a>{/if}
	</div>
	{#if seen.behind}<p class="pb-2 text-copper">What has just happened is still being counted.</p>{/if}
	<div class="grid gap-x-8 min-[900px]:grid-cols-2">
		<Answer
			question="How long do agreements take?"
			said={howLongInWords(now, before, seen.periods.now, asked.clock)}
			table={data.tables['how long']}
			file={file('how long')}
		>
			{#if !now.few}<Chart height={190} config={howLongChart(now, before)} />
				<p class="text-[13px] text-quiet">
					Done after so many days; hatched: how sure that is{before.few ? '' : '; broken line: the weeks before'}.
				</p>{/if}
		</Answer>
		<Answer
			question="Where do they wait?"
			said={whereInWords(seen.where, now.n)}
			table={data.tables.where}
			file={file('where')}
		>
			{#if isBroad(asked)}
				<div class="pb-1">
					<Toggles label="Set side by side" value={asked.by} options={BY} onchoose={(by) => go({ by })} />
				</div>
			{/if}
			{#if sure.length > 0}
				<Chart
					height={30 + sure.length * 26}
					config={barsChart(
						sure.map(({ name, course }) => ({ name, days: course.half.days!, look: 'diagonal' as const }))
					)}
				/>
			{/if}
			{#if seen.where.by === 'template'}
				<ul class="flex flex-wrap gap-2 pt-1">
					{#each seen.where.sorts as sort (sort.value)}
						<li>
							<a class="chip" href="?{paceQuery({ ...asked, filter: { ...asked.filter, template: sort.value } })}"
								>{sort.name}</a
							>
						</li>
					{/each}
				</ul>
			{/if}
		</Answer>
		<Answer
			question="Who is late, and is that unusual?"
			said={[lateInWords(seen.unusual[0], seen.out, seen.lookedAt)]}
			table={data.tables.late}
			file={file('late')}
		>
			{#if seen.unusual.length > 0}
				<Chart
					height={16 + late.length * 26}
					config={barsChart(
						late.map((row) => ({
							name: row.title,
							days: daysFrom(row.since, data.now),
							look: 'dots' as const,
							more: `longer than ${percent(row.unusual)}`
						}))
					)}
				/>
				<ul class="grid gap-x-4 gap-y-1 pt-1 min-[640px]:grid-cols-2">
					{#each late as row (row.packet)}<li class="min-w-0 truncate">
							<a class="underline" href="/packets/{row.packet}">{row.title}</a><br />
							<span class="text-[13px] text-quiet">{row.names}</span>
						</li>{/each}
				</ul>
			{/if}
		</Answer>
		{#if helped.length > 0}
			<section aria-labelledby="helped" class="min-w-0 border-t border-hairline py-3">
				<h2 id="helped" class="pb-1 font-serif text-[17px]">What came after</h2>
				{#each helped as [touch, name] (touch)}<p class="pb-1">
						<b>{name}</b>: {cameAfterInWords(seen.helped![touch]!)}
					</p>{/each}
				<p class="text-[13px] text-quiet">Seen beside parts that had waited as long; not proven to be the cause.</p>
			</section>
		{/if}
		<Answer question="What ends badly?" said={badlyInWords(now, before)} table={data.tables.badly} file={file('badly')}>
			{#if !now.few && BAD_ENDS.some((end) => now.ended[end].length > 0)}<Chart
					height={170}
					config={badlyChart(now)}
				/>{/if}
		</Answer>
		<Answer
			wide
			question="What is coming?"
			said={[comingInWords(seen.coming, seen.out)]}
			table={data.tables.coming}
			file={file('coming')}
		>
			{#if comingWithin(seen.coming, NEAR) >= 1}<Chart height={170} config={comingChart(seen.coming)} />{/if}
		</Answer>
	</div>
</main>
