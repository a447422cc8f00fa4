<script lang="ts">
	import { enhance } from '$app/forms';
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';

	/** Takes an intake that was never opened away again, once more asked. */
	let { heading }: { heading: string } = $props();
	let open = $state(false);
</script>

<button type="button" class="plain" onclick={() => (open = true)}>Throw it away</button>
<DialogBox bind:open place="top-28 left-1/2 w-[440px] -translate-x-1/2">
	<Dialog.Title class="font-serif text-lg font-semibold">Throw “{heading}” away?</Dialog.Title>
	<Dialog.Description class="pt-1">
		Nobody has seen it yet, and it can’t be brought back. Its template stays as it is.
	</Dialog.Description>
	<form method="POST" action="?/throw" class="flex gap-2 pt-4" use:enhance>
		<button class="button grave">Throw it away now</button>
		<Dialog.Close class="button">Keep it</Dialog.Close>
	</form>
</DialogBox>
