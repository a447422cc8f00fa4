<script lang="ts">
	import CodeForm from '../signing/CodeForm.svelte';
	import { send } from '../signing/keeper';
	import { useWords } from '../signing/words';

	/** A code goes to the visitor's address and is entered here; from then on what they enter is kept on the server too. */
	let {
		base,
		name,
		email,
		onright
	}: {
		/** `/i/SLUG/TOKEN` */
		base: string;
		name: string;
		email: string;
		onright: () => void;
	} = $props();

	const words = useWords();
</script>

<section aria-labelledby="confirm" class="rounded-sm border border-hairline bg-sheet p-4">
	<h3 id="confirm" class="pb-1 text-[17px]">{words()('intake.confirm')}</h3>
	<p class="pb-3">{words()('intake.confirm text', { to: email })}</p>
	<CodeForm
		ask={() => send(`${base}/code`, 'PUT', { name, email, language: words().language }, words())}
		enter={(code) => send(`${base}/code`, 'POST', { code }, words())}
		{onright}
	/>
</section>
