<script lang="ts">
	import { enhance } from '$app/forms';
	import Asked from '$lib/ui/frame/Asked.svelte';
	import Gate from '$lib/ui/frame/Gate.svelte';
	import PasskeyButton from '$lib/ui/frame/PasskeyButton.svelte';

	let { data, form } = $props();
	let busy = $state(false);
</script>

<Gate title="Sign in" lead={data.organisation}>
	{#if data.chosen}<p class="pb-4 text-moss" role="status">Your password is chosen. Sign in with it.</p>{/if}
	<form
		method="POST"
		use:enhance={() => {
			busy = true;
			return async ({ update }) => {
				await update({ reset: false });
				busy = false;
			};
		}}
	>
		<Asked label="E-mail" name="email" type="email" autocomplete="username webauthn" defaultValue={form?.email ?? ''} />
		<Asked label="Password" name="password" type="password" autocomplete="current-password" maxlength={512} />
		<p class="wrong pb-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
		<button class="button primary w-full" disabled={busy}>{busy ? 'Signing in…' : 'Sign in'}</button>
	</form>
	<div class="grid gap-3 pt-3">
		{#if data.passkeys}<PasskeyButton url="/sign-in/passkey" to={data.to} />{/if}
		{#if data.directory}
			<a
				class="button w-full text-center"
				href="/sign-in/directory?to={encodeURIComponent(data.to)}"
				data-sveltekit-reload>Go through {data.directory}</a
			>
		{/if}
		<p><a class="text-thread underline" href="/forgot">I don’t know my password any more</a></p>
	</div>
	{#if data.demo}
		<p class="pt-4 text-[14px] text-quiet">
			Demo: <span class="font-mono">odile@brindlevale.example</span>,
			<span class="font-mono">quince-lantern-orbit</span>
		</p>
	{/if}
</Gate>
