<script lang="ts">
	import type { Answers } from '../../core/field';
	import type { Field, Paper } from '../../core/packet';
	import { toShown } from '../../core/page';
	import AnswerMark from '../pages/AnswerMark.svelte';
	import PagePicture from '../pages/PagePicture.svelte';

	/** The documents with what has been answered on them; places of this person's own can be pressed. */
	let {
		papers,
		fields,
		answers,
		base,
		current,
		zoom,
		onchoose
	}: {
		papers: Paper[];
		fields: Field[];
		answers: Answers;
		base: string;
		current: string | null;
		zoom: number;
		onchoose?: (id: string) => void;
	} = $props();

	let width = $state(600);
</script>

<div bind:clientWidth={width} class="w-full">
	{#each papers as paper (paper.id)}
		{#if papers.length > 1}<h2 class="pb-2 text-[16px]">{paper.name}</h2>{/if}
		{#each paper.pages as page, number (number)}
			{@const scale = Math.min(1.21, (width - 2) / (page.rotate % 180 === 0 ? page.width : page.height)) * zoom}
			<div class="relative mb-4 w-fit {zoom <= 1 ? 'mx-auto' : ''}">
				<PagePicture
					url="{base}/papers/{paper.id}"
					{number}
					{page}
					{scale}
					label="{paper.name}, page {number + 1} of {paper.pages.length}"
				/>
				{#each fields.filter((f) => f.paper === paper.id && f.page === number) as field (field.id)}
					{@const at = toShown(page, field.rect)}
					{@const answer = answers[field.id]}
					{@const own = onchoose !== undefined && field.person === 'me'}
					<svelte:element
						this={own ? 'button' : 'div'}
						class="absolute text-left {own
							? `cursor-pointer border-b-2 ${current === field.id ? 'border-[#14525c] outline-2 outline-[#14525c]' : answer ? 'border-[#4b7a36]' : 'border-[#14525c] bg-[#e8eeecB0]'}`
							: ''}"
						style="left:{at.left * scale}px;top:{at.top * scale}px;width:{at.width * scale}px;height:{at.height *
							scale}px"
						data-place={field.id}
						type={own ? 'button' : undefined}
						onclick={own ? () => onchoose?.(field.id) : undefined}
						role={own ? undefined : 'presentation'}
					>
						{#if answer}<AnswerMark
								{field}
								{answer}
								width={at.width * scale}
								height={at.height * scale}
								pictures="{base}/pictures"
							/>
						{:else if own}<span
								class="block overflow-hidden px-1 whitespace-nowrap text-[#4d565c]"
								style:font-size="{Math.max(7, Math.min(14, at.height * scale * 0.6))}px">{field.label}</span
							>{/if}
					</svelte:element>
				{/each}
			</div>
		{/each}
	{/each}
</div>
