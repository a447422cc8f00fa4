<script lang="ts">
	import { page } from '$app/state';
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';

	/** The keys of the page that is open; “?” shows them, wherever nobody is typing. */
	const EVERYWHERE = [
		['Ctrl K', 'Find or do'],
		['?', 'these keys']
	];
	const LIST = [
		['↓ or J, ↑ or K', 'the next row, the one before'],
		['Page down, Page up', 'ten rows on, ten back'],
		['Home, End', 'the first row, the last'],
		['Enter', 'open it'],
		['Space', 'choose it, where rows can be chosen'],
		['Shift with a press', 'choose all from the one chosen before']
	];
	const MOVING = [
		['Enter', 'take up, and let go again'],
		['arrows', 'move what was taken up'],
		['Tab', 'carry it to another stop'],
		['Esc', 'leave it where it was'],
		['Ctrl Z', 'undo']
	];
	let open = $state(false);
	const at = $derived(page.url.pathname);
	const keys = $derived([
		...(/^\/(desk|records|batches|people|templates)(\/[^/]+)?$/.test(at) && !at.startsWith('/templates/join')
			? LIST
			: []),
		...(at.startsWith('/templates/join') ? MOVING : []),
		...EVERYWHERE
	]);

	function press(event: KeyboardEvent) {
		if (event.key !== '?' || event.ctrlKey || event.metaKey || event.altKey) return;
		if ((event.target as HTMLElement).closest('input, textarea, select, [contenteditable], [role="spinbutton"]'))
			return;
		event.preventDefault();
		open = true;
	}
</script>

<svelte:window onkeydown={press} />
<DialogBox bind:open place="top-24 left-1/2 w-[480px] -translate-x-1/2">
	<Dialog.Title class="pb-2 font-serif text-lg font-semibold">Keys of this page</Dialog.Title>
	<dl class="grid grid-cols-[160px_1fr] gap-x-3 gap-y-1">
		{#each keys as [key, does] (key)}<dt class="font-mono text-[14px]">{key}</dt>
			<dd>{does}</dd>{/each}
	</dl>
	<Dialog.Close class="button mt-4">Close</Dialog.Close>
</DialogBox>
