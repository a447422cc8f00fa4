<script lang="ts">
	import { useWords } from './words';

	/** That it is done before a notary: before whom, when, at what fee, and the way there. */
	let {
		notary,
		room
	}: {
		notary: { name: string; jurisdiction: string; when: string | null; minutes: number; fee: string };
		/** the way there; null until they have agreed */
		room: string | null;
	} = $props();

	const words = useWords();
</script>

<aside class="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-hairline bg-linen px-4 py-3 sm:px-6">
	<p class="min-w-0 flex-1 basis-72 text-[15px] leading-6">
		{words()('notary.about', { notary: notary.name, jurisdiction: notary.jurisdiction })}<br />
		{notary.when ? words()('notary.when', { when: notary.when, minutes: notary.minutes }) : words()('notary.no time')}
		{#if notary.fee}<br />{words()('notary.fee', { fee: notary.fee })}{/if}
	</p>
	{#if room}<a class="button primary large" href={room}>{words()('notary.go')}</a>{/if}
</aside>
