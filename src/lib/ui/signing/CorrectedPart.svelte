<script lang="ts">
	import type { SeenPart } from '../../core/packet';
	import type { ChangedWords } from '../../server/signing';
	import type { WordKey } from '../../words/words';
	import More from '../parts/More.svelte';
	import { send } from './keeper';
	import { useWords } from './words';

	/**
	 * It was corrected since this person opened it, or is a new version of what they had opened: what is different, word by
	 * word, before they go on. Fetched when there is something of the kind.
	 */
	let {
		base,
		parts,
		onrefresh
	}: {
		base: string;
		/** what was corrected; none: it is a new version, and they go on as they like */
		parts: SeenPart[];
		onrefresh: () => Promise<void>;
	} = $props();

	const words = useWords();
	let wrong = $state('');
	let busy = $state(false);
	let changed = $state.raw<ChangedWords[]>([]);
	const said = (part: SeenPart) => words()(`corrected.${part === 'title' ? 'name' : part}` as WordKey);

	$effect(() => {
		fetch(`${base}/changed`)
			.then((response) => (response.ok ? response.json() : []))
			.then(
				(found: ChangedWords[]) => (changed = found),
				// the parts still say what is different
				() => undefined
			);
	});

	async function goOn() {
		busy = true;
		const done = await send(`${base}/told`, 'POST', {}, words());
		busy = false;
		wrong = done.ok ? '' : done.say;
		if (done.ok) await onrefresh();
	}
</script>

{#snippet differing()}
	{#if changed.length > 0}
		<!-- it is scrolled by keys -->
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<ol
			class="mt-2 grid max-h-[40dvh] gap-2 overflow-y-auto border border-hairline bg-sheet px-3 py-2"
			aria-label={words()('corrected.documents')}
			tabindex="0"
		>
			{#each changed as { name, pages, differences } (name)}
				{#each differences as one, i (i)}
					<li>
						<p class="text-[13px] text-quiet">
							{words()('page.page', {
								name,
								n: (one.pageAfter ?? Math.min(one.pageBefore ?? 0, pages - 1)) + 1,
								all: pages
							})}
						</p>
						<p class="font-serif wrap-anywhere" dir="auto">
							{one.lead ? `…${one.lead}` : ''}
							{#if one.struck}<del class="text-brick">{one.struck}</del>{/if}
							{#if one.fresh}<ins class="bg-wash font-semibold text-thread">{one.fresh}</ins>{/if}
							{one.tail ? `${one.tail}…` : ''}
						</p>
					</li>
				{/each}
			{/each}
		</ol>
	{/if}
{/snippet}

{#if parts.length > 0}
	<div role="alert" class="border-b border-s-[3px] border-hairline border-s-copper bg-linen px-5 py-3">
		<h2 class="text-[17px]">{words()('corrected.title')}</h2>
		<p>{words()('corrected.text')}</p>
		<ul class="list-disc ps-5">
			{#each parts as part (part)}<li>{said(part)}</li>{/each}
		</ul>
		{@render differing()}
		<p class="wrong empty:hidden">{wrong}</p>
		<button class="button primary large mt-2" disabled={busy} onclick={goOn}>{words()('code.go')}</button>
	</div>
{:else if changed.length > 0}
	<section
		aria-label={words()('corrected.documents')}
		class="border-b border-s-[3px] border-hairline border-s-copper bg-linen px-5 py-3"
	>
		<More label={words()('corrected.documents')} look="text-[17px]" open>{@render differing()}</More>
	</section>
{/if}
