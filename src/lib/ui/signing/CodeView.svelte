<script lang="ts">
	import CodeForm from './CodeForm.svelte';
	import { send } from './keeper';
	import { useWords } from './words';

	/** Before anything is shown: a code, which the sender has told, or which comes by mail or text message. */
	let {
		base,
		by,
		to,
		minutes,
		onright
	}: {
		base: string;
		by: 'code' | 'mail' | 'text';
		/** where the code goes, mostly hidden */
		to: string;
		minutes: number;
		onright: () => void;
	} = $props();

	const words = useWords();
	const ask = () => send(`${base}/code`, 'PUT', {}, words());
</script>

<main id="main" class="mx-auto max-w-md px-5 py-10 text-[17px] leading-7">
	<h2 class="pb-2 text-xl">{words()('code.title')}</h2>
	<p class="pb-4">
		{by === 'code' ? words()('code.by code') : words()(`code.by ${by}`, { to, minutes })}
	</p>
	<CodeForm
		{...by === 'code' ? {} : { ask }}
		enter={(code) => send(`${base}/code`, 'POST', { code }, words())}
		told={by === 'code'}
		wide
		{onright}
	/>
</main>
