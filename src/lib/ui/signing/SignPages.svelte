<script lang="ts">
	import { kindOf, type Live } from '../../core/field';
	import type { Field, Paper } from '../../core/packet';
	import { toShown } from '../../core/page';
	import AnswerMark from '../pages/AnswerMark.svelte';
	import Covers from '../pages/Covers.svelte';
	import PagePicture from '../pages/PagePicture.svelte';
	import { useWords } from './words';

	/** The documents with what stands on them; places in `own` can be pressed. */
	let {
		papers,
		fields,
		now,
		own = [],
		current = [],
		locale,
		paperUrl,
		pictures,
		zoom = 1,
		only,
		marked = [],
		onchoose
	}: {
		papers: Paper[];
		fields: Field[];
		now: Live;
		/** ids of places this person may answer */
		own?: string[];
		/** ids of the places of the question in hand */
		current?: string[];
		locale: string;
		paperUrl: (paper: Paper) => string;
		pictures: string;
		zoom?: number;
		/** the one page (from 0) of the first document that is shown */
		only?: number;
		/** places that show what belongs there, though nobody can press them here */
		marked?: string[];
		onchoose?: (field: Field) => void;
	} = $props();

	const words = useWords();
	let width = $state(600);
	const small = (field: Field) => ['pick', 'tick'].includes(kindOf(field.kind).drawn(field));
</script>

<div bind:clientWidth={width} class="w-full">
	{#each papers as paper (paper.id)}
		{#if papers.length > 1}<h2 class="pb-2 text-[16px]">{paper.name}</h2>{/if}
		{#each paper.pages
			.map((page, number) => ({ page, number }))
			.filter((one) => only === undefined || one.number === only) as { page, number } (number)}
			{@const scale = Math.min(1.21, (width - 2) / (page.rotate % 180 === 0 ? page.width : page.height)) * zoom}
			<div data-seen="{paper.id} {number}" class="relative mb-4 w-fit {zoom <= 1 ? 'mx-auto' : ''}">
				<PagePicture
					url={paperUrl(paper)}
					{number}
					{page}
					{scale}
					label={words()('page.page', { name: paper.name, n: number + 1, all: paper.pages.length })}
				/>
				<Covers fields={fields.filter((f) => f.paper === paper.id && f.page === number)} {page} {scale} />
				{#each fields.filter((f) => f.paper === paper.id && f.page === number && now.shown(f)) as field (field.id)}
					{@const at = toShown(page, field.rect)}
					{@const answer = now.answer(field)}
					{@const mine = own.includes(field.id)}
					{@const told = mine || marked.includes(field.id)}
					<svelte:element
						this={mine ? 'button' : 'div'}
						class="absolute text-left {mine
							? `cursor-pointer ${small(field) ? 'border' : 'border-b-2'} ${current.includes(field.id) ? 'border-[#14525c] outline-2 outline-[#14525c]' : answer ? 'border-[#4b7a36]' : 'border-[#14525c] bg-[#e8eeecB0]'}`
							: told && !answer
								? 'border-b-2 border-dashed border-[#14525c] bg-[#e8eeecB0]'
								: ''}"
						style="left:{at.left * scale}px;top:{at.top * scale}px;width:{at.width * scale}px;height:{at.height *
							scale}px"
						data-place={field.id}
						type={mine ? 'button' : undefined}
						onclick={mine ? () => onchoose?.(field) : undefined}
						role={mine ? undefined : 'presentation'}
					>
						{#if answer || !told || small(field) || kindOf(field.kind).filledBy === 'nobody'}<AnswerMark
								{field}
								{fields}
								{answer}
								width={at.width * scale}
								height={at.height * scale}
								{scale}
								{locale}
								{pictures}
							/>
						{:else}<span
								class="block overflow-hidden px-1 whitespace-nowrap text-[#4d565c]"
								style:font-size="{Math.max(7, Math.min(14, at.height * scale * 0.6))}px">{field.label}</span
							>{/if}
					</svelte:element>
				{/each}
			</div>
		{/each}
	{/each}
</div>
