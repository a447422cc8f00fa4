<script lang="ts">
	import { enhance } from '$app/forms';
	import Asked from '$lib/ui/frame/Asked.svelte';
	import Gate from '$lib/ui/frame/Gate.svelte';
	import PasskeyButton from '$lib/ui/frame/PasskeyButton.svelte';

	let { data, form } = $props();
</script>

<Gate title="Show that it’s you" lead="{data.name}, what you want to do asks for it anew. It holds for ten minutes.">
	{#if data.passkeys}<div class="pb-5"><PasskeyButton url="/prove/passkey" to={data.to} /></div>{/if}
	<form method="POST" use:enhance>
		<Asked label="Password" name="password" type="password" autocomplete="current-password" maxlength={512} />
		{#if data.codes}
			<Asked
				label="The code your device shows, or a recovery code"
				mono
				name="code"
				autocomplete="one-time-code"
				maxlength={40}
			/>
		{/if}
		<p class="wrong pb-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
		<button class="button primary w-full">Go on</button>
	</form>
	<div class="grid gap-3 pt-3">
		{#if data.directory}
			<a
				class="button w-full text-center"
				href="/sign-in/directory?prove&to={encodeURIComponent(data.to)}"
				data-sveltekit-reload>Through {data.directory}</a
			>
		{/if}
		<p><a class="text-thread underline" href={data.to}>Back, without it</a></p>
	</div>
</Gate>
