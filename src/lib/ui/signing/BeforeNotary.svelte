<script lang="ts">
	import { useWords } from './words';

	/** That it is done before a notary: before whom, when, at what fee, and the way there. Whoever is in the room stays there meanwhile. */
	let {
		notary,
		room,
		me,
		onturn
	}: {
		notary: { name: string; jurisdiction: string; when: string | null; minutes: number; fee: string; may: boolean };
		/** the way there; null until they have agreed */
		room: string | null;
		me: string;
		/** the notary asks them to sign now, or does not any more */
		onturn: () => void;
	} = $props();

	const words = useWords();
	/** how often the room hears of this page, in ms */
	const EVERY = 10_000;
	$effect(() => {
		if (!room) return;
		const timer = setInterval(async () => {
			const response = await fetch(`${room}/now`).catch(() => null);
			const now = response?.ok ? ((await response.json()) as { turn: string | null; watched: boolean }) : null;
			if (now?.watched && (now.turn === me) !== notary.may) onturn();
		}, EVERY);
		return () => clearInterval(timer);
	});
</script>

<aside class="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-hairline bg-linen px-4 py-3 sm:px-6">
	<p class="min-w-0 flex-1 basis-72 text-[15px] leading-6">
		{words()('notary.about', { notary: notary.name, jurisdiction: notary.jurisdiction })}<br />
		{notary.when ? words()('notary.when', { when: notary.when, minutes: notary.minutes }) : words()('notary.no time')}
		{#if notary.fee}<br />{words()('notary.fee', { fee: notary.fee })}{/if}
	</p>
	{#if room}<a class="button primary large" href={room}>{words()('notary.go')}</a>{/if}
</aside>
