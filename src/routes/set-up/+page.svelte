<script lang="ts">
	let { form } = $props();
	const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
</script>

<svelte:head><title>Set up · Pellum</title></svelte:head>
<main id="main" class="grid min-h-dvh place-items-center bg-linen p-5">
	<form method="POST" class="w-full max-w-md rounded-sm border border-hairline bg-sheet p-8">
		<h1 class="text-2xl leading-8">Set up this Pellum</h1>
		<p class="pt-1 pb-6 text-quiet">You become its owner. Others of the office are added under Settings.</p>
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
			>Password, ten characters or more<input
				class="input mt-1"
				name="password"
				type="password"
				autocomplete="new-password"
				minlength="10"
				required
			/></label
		>
		<p class="wrong pb-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
		<button class="button primary w-full">Begin</button>
	</form>
</main>
