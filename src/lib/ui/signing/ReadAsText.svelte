<script lang="ts">
	import { isBlank, kindOf, questionOf } from '../../core/field';
	import type { Field, Paper } from '../../core/packet';
	import { shownPage, textOf, toShown, type PrintedWord, type TextBlock } from '../../core/page';
	import AskedAnswer from './AskedAnswer.svelte';
	import type { Signing } from './signing.svelte';
	import { useWords } from './words';

	/** The documents as text in reading order, with the questions at their places: the same answers, and the same finish. */
	let {
		signing,
		papers,
		readingUrl,
		name
	}: {
		signing: Signing;
		papers: Paper[];
		readingUrl: (paper: Paper) => string;
		name: string;
	} = $props();

	const words = useWords();
	let read = $state.raw<Record<string, PrintedWord[][]>>({});
	/** pages whose words a machine has read from a picture, by the id of their document */
	let pictures = $state.raw<Record<string, number[]>>({});
	let wrong = $state('');

	$effect(() => {
		for (const paper of papers) void load(paper);
	});
	async function load(paper: Paper) {
		try {
			const response = await fetch(readingUrl(paper));
			if (!response.ok) throw new Error();
			const answer = (await response.json()) as { words: PrintedWord[][]; read?: number[] };
			read = { ...read, [paper.id]: answer.words };
			pictures = { ...pictures, [paper.id]: answer.read ?? [] };
		} catch {
			wrong = words()('error.offline');
		}
	}

	/** one place for each question of this person, and every answer of others */
	function placesOn(paper: Paper, page: number): Field[] {
		return signing.fields.filter((field) => {
			if (field.paper !== paper.id || field.page !== page || !signing.now.shown(field)) return false;
			const question = questionOf(signing.fields, field);
			if (signing.todo.some((f) => question.includes(f))) return signing.todo.includes(field);
			const answer = signing.now.answer(field);
			return field.kind === 'note' || (question[0] === field && answer !== undefined && !isBlank(answer));
		});
	}
	function blocks(paper: Paper, number: number): TextBlock[] {
		const page = paper.pages[number]!;
		const shown = shownPage({ words: read[paper.id]!, drawn: [] }, number, page);
		const found = textOf(
			shown,
			placesOn(paper, number).map((field) => ({ id: field.id, ...toShown(page, field.rect) }))
		);
		// who listens to headings goes down one level at a time, however a page is set
		let last = 1;
		return found.map((block) => {
			if (block.is !== 'heading') return block;
			const level = block.level > last + 1 ? 2 : block.level;
			last = level;
			return { ...block, level };
		});
	}
	const fieldOf = (id: string) => signing.fields.find((f) => f.id === id)!;
	const noteOf = (field: Field) => (field.kind === 'note' ? String(field.settings['text'] ?? '') : signing.said(field));
</script>

<div class="mx-auto max-w-[42em] px-5 py-6 text-[18px] leading-8">
	<p class="wrong empty:hidden" role="alert">{wrong}</p>
	{#each papers as paper (paper.id)}
		<article aria-label={paper.name}>
			<h2 class="pb-3 text-[22px]">{paper.name}</h2>
			{#if read[paper.id]?.every((page) => page.length === 0)}
				<p class="pb-4 text-copper">{words()('read.no text')}</p>
			{/if}
			{#each paper.pages as _, number (number)}
				<section
					aria-label={words()('page.page', { name: paper.name, n: number + 1, all: paper.pages.length })}
					data-text-page={number}
					data-text-paper={paper.id}
				>
					{#if read[paper.id]}
						{#if pictures[paper.id]?.includes(number)}<p class="pb-3 text-[15px] text-copper">
								{words()('read.machine')}
							</p>{/if}
						{#each blocks(paper, number) as block, i (block.is === 'place' ? block.id : i)}
							{#if block.is === 'heading'}
								<svelte:element this={`h${block.level + 1}`} class="pt-3 pb-1 text-[19px]">{block.text}</svelte:element>
							{:else if block.is === 'paragraph'}<p class="pb-3">{block.text}</p>
							{:else}
								{@const field = fieldOf(block.id)}
								{@const mine = signing.todo.includes(field)}
								{#if mine && kindOf(field.kind).filledBy === 'person'}
									<div
										class="my-3 border-s-[3px] bg-wash px-4 py-3 {signing.isDone(field)
											? 'border-moss'
											: 'border-thread'}"
										role="group"
										aria-label={words()('read.question')}
										data-place={field.id}
										data-todo={field.id}
										onfocusin={() => (signing.current = field.id)}
									>
										<p class="font-semibold">
											{field.label}{#if !signing.now.required(field)}
												<span class="font-normal text-quiet">{words()('todo.may stay empty')}</span>{/if}
										</p>
										<AskedAnswer {signing} {field} {name} />
									</div>
								{:else}
									<p class="my-2 border-s-[3px] border-line ps-4">
										{mine
											? words()('read.others', { label: field.label, answer: words()('todo.at the end') })
											: words()('read.others', {
													label: field.label || kindOf(field.kind).name,
													answer: noteOf(field)
												})}
									</p>
								{/if}
							{/if}
						{/each}
					{/if}
				</section>
			{/each}
		</article>
	{/each}
</div>
