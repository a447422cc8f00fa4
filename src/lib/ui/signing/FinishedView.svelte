<script lang="ts">
	import { isoDay } from '../../core/calendar';
	import { live, type Answers } from '../../core/field';
	import type { Field, Paper } from '../../core/packet';
	import type { WordKey } from '../../words/words';
	import SignPages from './SignPages.svelte';
	import { useWords } from './words';

	/** After a person's part: what comes next, the copies once there are some, and the pages as they stand. */
	let {
		view,
		base,
		next,
		paperUrl,
		hostLink
	}: {
		view: {
			state: 'finished' | 'so far';
			me: { name: string; duty: string };
			complete?: boolean;
			copies?: { what: string; name: string }[];
			host?: string | null;
			papers: Paper[];
			fields: Field[];
			answers: Answers;
			zone: string;
			now: string;
			locale: string;
		};
		base: string;
		/** who comes next, each with what they do */
		next: string[];
		paperUrl: (paper: Paper) => string;
		/** where a guest's host goes on */
		hostLink: string | null;
	} = $props();

	const words = useWords();
	const copies = $derived(view.copies ?? []);
</script>

<main id="main" class="mx-auto max-w-3xl px-5 py-8 text-[17px] leading-7">
	<h2 class="pb-2 text-xl">
		{view.state === 'so far' ? words()('so far.title') : words()(`done.${view.me.duty}` as WordKey)}
	</h2>
	{#if view.state === 'so far'}<p class="pb-5">{words()('so far.text')}</p>
	{:else if view.host}
		<p class="pb-3">{words()('done.thanks', { name: view.me.name })}</p>
		<p class="pb-5">
			{#if hostLink}<a class="button primary large" href={hostLink} data-sveltekit-reload
					>{words()('host.back', { host: view.host })}</a
				>
			{:else}{words()('host.back', { host: view.host })}{/if}
		</p>
	{:else if !view.complete}<p class="pb-5">
			{words().joined([
				words()('done.thanks', { name: view.me.name }),
				next.length > 0 ? words()('done.next', { names: words().clauses(next) }) : '',
				words()('done.comes')
			])}
		</p>
	{:else if copies.length === 0}<p class="pb-5" role="status">{words()('done.making')}</p>
	{:else}
		<p class="pb-3">{words()('done.seal')}</p>
		<ul class="flex flex-wrap gap-2 pb-6">
			{#each copies as copy (copy.what)}<li>
					<a class="button large" href="{base}/copies/{copy.what}" download
						>{copy.what === 'evidence' ? words()('done.evidence') : copy.name}</a
					>
				</li>{/each}
		</ul>
	{/if}
	{#if view.papers.length > 0}<div class="bg-desk p-3" dir="ltr">
			<SignPages
				papers={view.papers}
				fields={view.fields}
				now={live({ fields: view.fields }, view.answers, isoDay(view.zone, view.now))}
				locale={view.locale}
				{paperUrl}
				pictures="{base}/pictures"
			/>
		</div>{/if}
</main>
