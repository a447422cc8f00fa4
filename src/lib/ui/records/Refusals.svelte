<script lang="ts">
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';
	import type { Refused } from './filing';

	/** Of many, those for which it was not done, and why. */
	let { refused = $bindable() }: { refused: Refused[] } = $props();
</script>

<DialogBox
	bind:open={() => refused.length > 0, (now) => (refused = now ? refused : [])}
	place="top-28 left-1/2 w-[480px] -translate-x-1/2"
>
	<Dialog.Title class="font-serif text-lg font-semibold"
		>{refused.length === 1 ? 'One stays as it was' : `${refused.length} stay as they were`}</Dialog.Title
	>
	<Dialog.Description class="pt-1 pb-2">Everything else was done.</Dialog.Description>
	<ul class="grid max-h-72 gap-2 overflow-y-auto pb-3">
		{#each refused as one (one.id)}<li>
				<a class="text-thread underline" href="/packets/{one.id}">{one.title}</a>: {one.say}
			</li>{/each}
	</ul>
	<Dialog.Close class="button">I see</Dialog.Close>
</DialogBox>
