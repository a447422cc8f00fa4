<script lang="ts">
	import NewPassword from '$lib/ui/frame/NewPassword.svelte';
	import Asked from '$lib/ui/frame/Asked.svelte';
	import Gate from '$lib/ui/frame/Gate.svelte';

	let { form } = $props();
	const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
</script>

<Gate title="Set up this Pellum" lead="You become its owner. Others of the office are invited under Settings." wide>
	<form method="POST">
		<Asked
			label="Set-up code, printed where Pellum was started"
			mono
			name="code"
			autocomplete="off"
			defaultValue={form?.code ?? ''}
		/>
		<Asked label="Organisation" name="organisation" maxlength={120} defaultValue={form?.organisation ?? ''} />
		<Asked label="Time zone" name="zone" defaultValue={form?.zone ?? zone} />
		<Asked label="Your name" name="name" autocomplete="name" defaultValue={form?.name ?? ''} />
		<Asked label="Your e-mail" name="email" type="email" autocomplete="username" defaultValue={form?.email ?? ''} />
		<NewPassword label="Password, twelve characters or more" />
		<p class="wrong pb-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
		<button class="button primary w-full">Begin</button>
	</form>
</Gate>
