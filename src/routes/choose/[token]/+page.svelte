<script lang="ts">
	import NewPassword from '$lib/ui/frame/NewPassword.svelte';
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import Gate from '$lib/ui/frame/Gate.svelte';

	let { data, form } = $props();
	let password = $state('');
</script>

<Gate
	title={data.purpose === 'invitation' ? 'Choose a password' : 'Choose a new password'}
	lead="{data.name}, {data.email}"
>
	<form method="POST" use:enhance={keepFilled}>
		<input type="hidden" name="username" autocomplete="username" value={data.email} />
		<NewPassword label="Password" bind:value={password} aria-describedby="rule" />
		<p id="rule" class="pb-4 text-[14px] text-quiet">
			Twelve characters or more, of any kind: a few words that don’t belong together are easy to keep and hard to guess.
			{#if password}{[...password].length} so far.{/if}
		</p>
		<p class="wrong pb-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
		<button class="button primary w-full">Choose it</button>
	</form>
</Gate>
