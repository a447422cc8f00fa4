<script lang="ts">
	/** A secret that is shown this once, to be copied. */
	let { what, secret }: { what: string; secret: string } = $props();
	let copied = $state(false);

	async function copy() {
		await navigator.clipboard.writeText(secret);
		copied = true;
	}
</script>

<div class="mt-3 border-l-4 border-moss bg-linen px-3 py-2" role="status">
	<p>{what} It is shown this once; put it where only the program reads it.</p>
	<p class="flex flex-wrap items-center gap-2 pt-1">
		<code class="min-w-0 flex-1 font-mono wrap-anywhere" data-secret>{secret}</code>
		<button class="button" type="button" onclick={copy}>{copied ? 'Copied' : 'Copy'}</button>
	</p>
</div>
