<script lang="ts">
	import { enhance } from '$app/forms';
	import { Dialog } from '../parts/dialog';
	import DialogBox from '../parts/DialogBox.svelte';
	import { saidTo, type Answered } from './form';

	/** Asks for the reason of something that can't be taken back. */
	let {
		open = $bindable(false),
		form,
		title,
		text,
		button,
		values = {},
		answered
	}: {
		open?: boolean;
		form: string;
		title: string;
		text: string;
		button: string;
		/** what goes along besides the reason */
		values?: Record<string, string>;
		answered: Answered | null;
	} = $props();
</script>

<DialogBox bind:open place="top-28 left-1/2 w-[480px] -translate-x-1/2">
	<Dialog.Title class="font-serif text-lg font-semibold">{title}</Dialog.Title>
	<Dialog.Description class="pt-1 pb-3">{text}</Dialog.Description>
	<form
		method="POST"
		action="?/{form}"
		use:enhance={() =>
			async ({ result, update }) => {
				await update({ reset: false });
				if (result.type === 'success') open = false;
			}}
	>
		{#each Object.entries(values) as [name, value] (name)}<input type="hidden" {name} {value} />{/each}
		<label
			>Reason<textarea class="input mt-1 h-24" name="reason" required
				>{answered?.form === form ? (answered.kept?.['reason'] ?? '') : ''}</textarea
			></label
		>
		<p class="wrong empty:hidden" role="alert">{saidTo(answered, form)}</p>
		<p class="flex gap-2 pt-3">
			<button class="button grave">{button}</button><Dialog.Close class="button">Keep it out</Dialog.Close>
		</p>
	</form>
</DialogBox>
