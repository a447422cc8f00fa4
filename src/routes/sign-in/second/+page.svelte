<script lang="ts">
	import { enhance } from '$app/forms';
	import Asked from '$lib/ui/frame/Asked.svelte';
	import Gate from '$lib/ui/frame/Gate.svelte';
	import PasskeyButton from '$lib/ui/frame/PasskeyButton.svelte';

	let { data, form } = $props();
</script>

<Gate title="One more step" lead="{data.name}, show that it is you.">
	{#if data.passkeys}<div class="pb-5"><PasskeyButton url="/sign-in/passkey" to={data.to} /></div>{/if}
	<form method="POST" use:enhance>
		<Asked
			label={data.codes ? 'The code your device shows, or a recovery code' : 'A recovery code'}
			mono
			name="code"
			autocomplete="one-time-code"
			maxlength={40}
		/>
		<p class="wrong pb-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
		<button class="button primary w-full">Go on</button>
	</form>
	<p class="pt-4 text-[14px] text-quiet">
		Device and recovery codes lost? An owner can take them away, and you set them up anew.
	</p>
</Gate>
