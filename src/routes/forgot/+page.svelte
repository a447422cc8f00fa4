<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import Asked from '$lib/ui/frame/Asked.svelte';
	import Gate from '$lib/ui/frame/Gate.svelte';

	let { form } = $props();
</script>

<Gate title="A new password" lead="A letter with a link goes to your address.">
	{#if form?.sent}
		<p role="status">
			If {form.email} has an account here, a letter is on its way. Its link holds for an hour. Nothing came? Look among what
			was sorted out as unwanted, or ask an owner which address you have.
		</p>
	{:else}
		<form method="POST" use:enhance={keepFilled}>
			<Asked label="E-mail" name="email" type="email" autocomplete="username" defaultValue={form?.email ?? ''} />
			<p class="wrong pb-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
			<button class="button primary w-full">Send the letter</button>
		</form>
	{/if}
	<p class="pt-4"><a class="text-thread underline" href="/sign-in">Back to signing in</a></p>
</Gate>
