<script lang="ts">
	import { enhance } from '$app/forms';

	let { data, form } = $props();
	let busy = $state(false);
</script>

<svelte:head><title>Sign in · Pellum</title></svelte:head>
<main id="main" class="grid min-h-dvh place-items-center bg-linen p-5">
	<form
		method="POST"
		class="w-full max-w-sm rounded-sm border border-hairline bg-sheet p-8"
		use:enhance={() => {
			busy = true;
			return async ({ update }) => {
				await update({ reset: false });
				busy = false;
			};
		}}
	>
		<svg width="90" height="16" aria-hidden="true" class="mb-4">
			<line x1="8" x2="76" y1="8" y2="8" stroke="var(--thread)" stroke-width="2" />
			<circle cx="8" cy="8" r="6" fill="var(--thread)" /><circle
				cx="80"
				cy="8"
				r="6"
				fill="var(--sheet)"
				stroke="var(--thread)"
				stroke-width="2.5"
			/>
		</svg>
		<h1 class="text-2xl leading-8">Sign in</h1>
		<p class="pb-6 text-quiet">{data.organisation}</p>
		<label class="block pb-4"
			>E-mail<input
				class="input mt-1"
				name="email"
				type="email"
				autocomplete="username"
				required
				defaultValue={form?.email ?? ''}
			/></label
		>
		<label class="block pb-4"
			>Password<input
				class="input mt-1"
				name="password"
				type="password"
				autocomplete="current-password"
				required
			/></label
		>
		<p class="wrong pb-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
		<button class="button primary w-full" disabled={busy}>{busy ? 'Signing in…' : 'Sign in'}</button>
		{#if data.demo}
			<p class="pt-5 text-[14px] text-quiet">
				Demo: <span class="font-mono">odile@brindlevale.example</span>, <span class="font-mono">brindlevale-demo</span>
			</p>
		{/if}
	</form>
</main>
