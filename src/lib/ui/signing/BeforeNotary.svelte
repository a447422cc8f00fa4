<script lang="ts">
	import { useWords } from './words';

	/** That it is done before a notary: before whom, when, at what fee, and the way there. */
	let {
		notary,
		base
	}: {
		notary: { name: string; jurisdiction: string; when: string | null; minutes: number; fee: string };
		base: string;
	} = $props();

	const words = useWords();
</script>

<aside class="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-hairline bg-linen px-4 py-3 sm:px-6">
	<p class="min-w-0 flex-1 basis-72 text-[15px] leading-6">
		{words().joined([
			words()('notary.about', { notary: notary.name, jurisdiction: notary.jurisdiction }),
			notary.when ? words()('notary.when', { when: notary.when, minutes: notary.minutes }) : words()('notary.no time'),
			notary.fee ? words()('notary.fee', { fee: notary.fee }) : ''
		])}
	</p>
	<a class="button primary large" href="{base}/room">{words()('notary.go')}</a>
</aside>
