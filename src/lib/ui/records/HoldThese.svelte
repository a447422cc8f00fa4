<script lang="ts">
	import { deserialize } from '$app/forms';
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';
	import { tell } from '../parts/told';

	/** Sets a legal hold on packets that are chosen. */
	let { open = $bindable(false), ids, ondone }: { open?: boolean; ids: string[]; ondone: () => unknown } = $props();
	let name = $state('');
	let why = $state('');
	let wrong = $state('');

	async function set() {
		const body = new FormData();
		for (const [key, value] of Object.entries({ name, why, of: 'packets', packets: ids.join(' ') }))
			body.set(key, value);
		try {
			const response = await fetch('/records/holds?/set', { method: 'POST', body });
			const result = deserialize(await response.text());
			const say = result.type === 'failure' ? String(result.data?.['say'] ?? '') : '';
			if (result.type !== 'success') return void (wrong = say || 'It could not be set. Try again.');
		} catch {
			return void (wrong = 'No connection, so nothing was set. Try again.');
		}
		[name, why, wrong] = ['', '', ''];
		open = false;
		tell('They are held. Holds are under Records, Holds');
		await ondone();
	}
</script>

<DialogBox bind:open place="top-28 left-1/2 w-[440px] -translate-x-1/2">
	<Dialog.Title class="font-serif text-lg font-semibold"
		>A legal hold on {ids.length === 1 ? 'one packet' : `${ids.length} packets`}</Dialog.Title
	>
	<Dialog.Description class="pt-1 pb-3"
		>Nothing of them goes, by whatever rule and whoever says so, until it is lifted.</Dialog.Description
	>
	<form
		class="grid gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			void set();
		}}
	>
		<label class="grid gap-1">What it is called<input class="input" maxlength="120" required bind:value={name} /></label
		>
		<label class="grid gap-1"
			>Why<textarea class="input h-20" maxlength="2000" required bind:value={why}></textarea></label
		>
		<p class="wrong empty:hidden" role="alert">{wrong}</p>
		<p class="flex gap-2">
			<button class="button primary">Hold them</button><Dialog.Close class="button">Leave it</Dialog.Close>
		</p>
	</form>
</DialogBox>
