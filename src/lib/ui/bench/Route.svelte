<script lang="ts">
	import { Plus } from '@lucide/svelte';
	import { acts } from '../../core/route';
	import type { Bench } from './bench.svelte';
	import { addPerson } from './edits';
	import { weave } from './weave';

	/** The thread at the top of the Bench: who does what, in which order. Choosing a person means: what is placed now is theirs. */
	let { bench }: { bench: Bench } = $props();

	const plan = $derived(bench.plan);
	const place = (id: string) => plan.people.findIndex((p) => p.id === id);
	const isChosen = (id: string) => (bench.chosen.what === 'person' ? bench.chosen.id === id : bench.person === id);

	function add() {
		const added = addPerson(plan);
		bench.change('add a person', added.plan);
		bench.choosePerson(added.person);
		// the name is what comes next
		setTimeout(
			() => document.querySelector<HTMLInputElement>(bench.asTemplate ? '#person-role' : '#person-name')?.focus(),
			30
		);
	}
</script>

<ol class="relative flex min-w-0 flex-1 items-start gap-0 overflow-x-auto px-1 pt-2.5" aria-label="Route">
	{#each plan.stops as stop, i (stop.id)}
		{@const people = stop.people.flatMap((id) => plan.people.find((p) => p.id === id) ?? [])}
		{@const copyOnly = people.every((p) => !acts(p.duty))}
		<li class="relative shrink-0 pr-3">
			<svg class="absolute top-0 left-0 h-3.5 w-full overflow-visible" aria-hidden="true">
				<line x1="16" x2="100%" y1="7" y2="7" stroke="var(--hollow)" stroke-width="2" stroke-dasharray="2 4" />
				{#if copyOnly}<line x1="8" x2="8" y1="0" y2="14" stroke="var(--line)" stroke-width="3" />
				{:else}<circle
						cx="8"
						cy="7"
						r="6"
						fill={people.some((p) => isChosen(p.id)) ? 'var(--thread)' : 'var(--sheet)'}
						stroke="var(--thread)"
						stroke-width="2"
					/>{/if}
			</svg>
			<span class="unseen">Stop {i + 1} of {plan.stops.length}</span>
			<div class="flex gap-1 pt-[18px]">
				{#each people as person (person.id)}
					<button
						class="flex min-w-32 items-stretch gap-2 rounded-sm border px-1.5 py-1 text-left {isChosen(person.id)
							? 'border-thread bg-wash'
							: 'border-transparent hover:border-hairline'}"
						aria-pressed={isChosen(person.id)}
						onclick={() => bench.choosePerson(person.id)}
					>
						<span class="w-2 shrink-0" style:background={weave(place(person.id))}></span>
						<span class="min-w-0">
							<span class="block max-w-44 truncate text-[14px] leading-5 font-semibold"
								>{person.name || person.role || 'No name yet'}</span
							>
							<span class="block text-[13px] leading-4 text-quiet">{person.duty}</span>
						</span>
					</button>
				{/each}
			</div>
		</li>
	{/each}
	<li class="shrink-0">
		<svg class="block h-3.5 w-6" width="24" aria-hidden="true"
			><circle cx="8" cy="7" r="5" fill="none" stroke="var(--hollow)" stroke-width="1.5" stroke-dasharray="2 2" /></svg
		>
		<button class="button mt-1.5" onclick={add}
			><Plus size={15} aria-hidden="true" />
			{plan.people.length === 0
				? bench.asTemplate
					? 'First role'
					: 'Who signs first'
				: bench.asTemplate
					? 'Next role'
					: 'Somebody next'}</button
		>
	</li>
</ol>
