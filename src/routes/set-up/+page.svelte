<script lang="ts">
	import Gate from '$lib/ui/frame/Gate.svelte';

	let { form } = $props();
	const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
</script>

<Gate title="Set up this Pellum" lead="You become its owner. Others of the office are invited under Settings." wide>
	<form method="POST">
		<label class="block pb-4"
			>Set-up code, printed where Pellum was started<input
				class="input mt-1 font-mono"
				name="code"
				autocomplete="off"
				required
				defaultValue={form?.code ?? ''}
			/></label
		>
		<label class="block pb-4"
			>Organisation<input
				class="input mt-1"
				name="organisation"
				required
				maxlength="120"
				defaultValue={form?.organisation ?? ''}
			/></label
		>
		<label class="block pb-4"
			>Time zone<input class="input mt-1" name="zone" required defaultValue={form?.zone ?? zone} /></label
		>
		<label class="block pb-4"
			>Your name<input
				class="input mt-1"
				name="name"
				autocomplete="name"
				required
				defaultValue={form?.name ?? ''}
			/></label
		>
		<label class="block pb-4"
			>Your e-mail<input
				class="input mt-1"
				name="email"
				type="email"
				autocomplete="username"
				required
				defaultValue={form?.email ?? ''}
			/></label
		>
		<label class="block pb-4"
			>Password, twelve characters or more<input
				class="input mt-1"
				name="password"
				type="password"
				autocomplete="new-password"
				minlength="12"
				maxlength="512"
				required
			/></label
		>
		<p class="wrong pb-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
		<button class="button primary w-full">Begin</button>
	</form>
</Gate>
