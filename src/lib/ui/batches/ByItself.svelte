<script lang="ts">
	import { enhance } from '$app/forms';

	/** Whether a batch stands open, what that means, and where its sheets come to. */
	let {
		byItself,
		address
	}: {
		/** `folder`: where sheets may be dropped; null where the office permits it nobody */
		byItself: { open: boolean; folder: string | null };
		/** of the API, for its sheets */
		address: string;
	} = $props();
</script>

<form method="POST" action="?/{byItself.open ? 'shut' : 'open'}" use:enhance class="grid gap-2">
	{#if byItself.open}
		<p>It stands open: each sheet that comes is judged, what is ready goes, and the rest is on your Desk.</p>
		<p class="text-[14px] text-quiet">
			Sheets come here, to <span class="font-mono wrap-anywhere">{address}</span> by a key{#if byItself.folder}, or into
				the folder <span class="font-mono wrap-anywhere">{byItself.folder}</span>{/if}.
		</p>
		<p><button class="button">Let it stand open no more</button></p>
	{:else}
		<p class="text-[14px] text-quiet">
			A batch can stand open: what is ready of each sheet that comes goes without being looked at first.
		</p>
		<p><button class="button">Let it stand open</button></p>
	{/if}
</form>
