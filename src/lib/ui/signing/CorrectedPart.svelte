<script lang="ts">
	import type { SeenPart } from '../../core/packet';
	import type { WordKey } from '../../words/words';
	import { send } from './keeper';
	import { useWords } from './words';

	/** It was corrected since this person opened it: what is different, before they go on. */
	let { base, parts, onrefresh }: { base: string; parts: SeenPart[]; onrefresh: () => Promise<void> } = $props();

	const words = useWords();
	let wrong = $state('');
	let busy = $state(false);
	const said = (part: SeenPart) => words()(`corrected.${part === 'title' ? 'name' : part}` as WordKey);

	async function goOn() {
		busy = true;
		const done = await send(`${base}/told`, 'POST', {}, words());
		busy = false;
		wrong = done.ok ? '' : done.say;
		if (done.ok) await onrefresh();
	}
</script>

<div role="alert" class="border-b border-s-[3px] border-hairline border-s-copper bg-linen px-5 py-3">
	<h2 class="text-[17px]">{words()('corrected.title')}</h2>
	<p>{words()('corrected.text')}</p>
	<ul class="list-disc ps-5">
		{#each parts as part (part)}<li>{said(part)}</li>{/each}
	</ul>
	<p class="wrong empty:hidden">{wrong}</p>
	<button class="button primary large mt-2" disabled={busy} onclick={goOn}>{words()('code.go')}</button>
</div>
