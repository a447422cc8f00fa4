<script lang="ts">
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';
	import { KEYS } from './keys';

	let { open = $bindable(false) }: { open?: boolean } = $props();
</script>

<DialogBox bind:open place="top-8 left-1/2 max-h-[92dvh] w-[760px] -translate-x-1/2 overflow-y-auto">
	<Dialog.Title class="pb-2 font-serif text-lg font-semibold">Keys of the Bench</Dialog.Title>
	<dl class="grid grid-cols-[110px_1fr_110px_1fr] gap-x-3 gap-y-1">
		{#each KEYS as [key, does] (key)}<dt class="font-mono text-[14px]">{key}</dt>
			<dd>{does}</dd>{/each}
	</dl>
	<Dialog.Close class="button mt-4">Close</Dialog.Close>
</DialogBox>
