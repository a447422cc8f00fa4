<script lang="ts">
	import DialogBox from '../../parts/DialogBox.svelte';
	import { Dialog } from '../../parts/dialog';
	import { post } from '../../post';
	import type { Bench } from '../bench.svelte';

	/**
	 * Pages that look different from the file they were made from, one after the other, both pictures side by side. Enter
	 * says that it may stay as it is; nothing goes before all have been looked at.
	 */
	let { bench, open = $bindable(false) }: { bench: Bench; open?: boolean } = $props();

	const all = $derived(
		bench.plan.papers.flatMap((paper) => bench.unlikeOf(paper.digest).map((page) => ({ paper, page })))
	);
	let at = $state(0);
	const now = $derived(all[Math.min(at, all.length - 1)]);
	let wrong = $state('');
	let busy = $state(false);

	async function accept() {
		if (!now || busy) return;
		busy = true;
		const { digest } = now.paper;
		const done = await post<{ unlike: number[] }>(
			`/papers/${digest}/looks`,
			{ pages: [now.page] },
			'The page still waits to be looked at.'
		);
		busy = false;
		if ('wrong' in done) return void (wrong = done.wrong);
		wrong = '';
		bench.unlike = { ...bench.unlike, [digest]: done.unlike };
		at = Math.min(at, Math.max(0, all.length - 1));
		if (all.length === 0) open = false;
	}

	function key(event: KeyboardEvent) {
		if (event.key === 'Enter' && !(event.target as HTMLElement).closest('button')) void accept();
		else if (event.key === 'ArrowDown') at = Math.min(all.length - 1, at + 1);
		else if (event.key === 'ArrowUp') at = Math.max(0, at - 1);
		else return;
		event.preventDefault();
	}
</script>

{#snippet picture(of: 'file' | 'taken', title: string)}
	<!-- svelte-ignore a11y_no_noninteractive_tabindex (what scrolls must be reached by keyboard) -->
	<section
		tabindex="0"
		aria-label={title}
		class="min-h-0 overflow-auto border-r border-hairline bg-desk p-3 last:border-r-0"
	>
		<h3 class="pb-2 text-center text-[14px] font-normal text-quiet">{title}</h3>
		{#if now}{#key `${now.paper.digest} ${now.page}`}
				<img
					class="mx-auto h-auto max-w-full border border-hairline bg-white"
					src="/papers/{now.paper.digest}/looks?page={now.page}&of={of}"
					alt="Page {now.page + 1} of “{now.paper.name}”, {of === 'file'
						? 'as the file shows it'
						: 'as it was taken in'}"
				/>
			{/key}{/if}
	</section>
{/snippet}

<DialogBox whole bind:open onkeydown={key}>
	<div class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hairline px-5 py-3">
		<div>
			<Dialog.Title class="font-serif text-lg font-semibold">Pages that look different from your file</Dialog.Title>
			<Dialog.Description class="text-[14px] text-quiet"
				>People will sign what is shown at the right. If something is missing there, print the file as a new PDF and add
				that instead.</Dialog.Description
			>
		</div>
		<span class="ml-auto" role="status">{all.length === 0 ? 'All looked at' : `${all.length} to look at`}</span>
		<button class="button primary" disabled={busy || all.length === 0} onclick={accept}>It may stay so</button>
		<Dialog.Close class="button">Later</Dialog.Close>
	</div>
	<p class="wrong px-5 empty:hidden" role="alert">{wrong}</p>
	<div class="grid min-h-0 flex-1 grid-cols-[240px_1fr_1fr]">
		<section aria-label="Pages to look at" class="min-h-0 overflow-y-auto border-r border-hairline bg-linen">
			<ul>
				{#each all as { paper, page }, i (`${paper.id} ${page}`)}
					<li class="border-b border-hairline">
						<button
							class="block w-full cursor-pointer px-4 py-2 text-left {now?.page === page && now.paper === paper
								? 'bg-wash'
								: ''}"
							aria-current={now?.page === page && now.paper === paper}
							onclick={() => (at = i)}><b>Page {page + 1}</b> of {paper.name}</button
						>
					</li>
				{/each}
			</ul>
			{#if now && (bench.leftOut[now.paper.digest] ?? []).length > 0}
				<div class="border-b border-hairline px-4 py-3 text-[14px]">
					<h3 class="text-[14px]">Taken out or set on the page</h3>
					<ul class="list-disc pl-4">
						{#each bench.leftOut[now.paper.digest] ?? [] as what (what)}<li>{what}</li>{/each}
					</ul>
				</div>
			{/if}
			<p class="px-4 py-3 text-[13px] text-quiet">
				Enter says that it may stay so and goes on. Who has said so stands in the record.
			</p>
		</section>
		{@render picture('file', 'Your file')}
		{@render picture('taken', 'What people will sign')}
	</div>
</DialogBox>
