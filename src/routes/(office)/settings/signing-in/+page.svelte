<script lang="ts">
	import Check from '$lib/ui/parts/Check.svelte';
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import Proof from '$lib/ui/account/Proof.svelte';

	let { data, form } = $props();
	const LEVELS = { owner: 'owners', preparer: 'preparers', viewer: 'viewers' };
	const now = $derived(form ?? data.safety);
</script>

<svelte:head><title>Signing in · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto grid max-w-5xl gap-10 px-6 py-6 md:grid-cols-2">
	<section aria-labelledby="signing">
		<h1 id="signing" class="border-b border-hairline pb-2 text-[19px]">Signing in</h1>
		{#if !data.proved}<Proof what="This is changed only right after you have shown that it’s you." />{/if}
		<form method="POST" use:enhance={keepFilled}>
			<fieldset disabled={!data.proved} class="grid gap-4 pt-4">
				<fieldset>
					<legend class="font-semibold">A second factor is wanted of</legend>
					<p class="text-[14px] text-quiet">
						Whoever has none yet sets one up at the next sign-in, before anything else opens.
					</p>
					{#each Object.entries(LEVELS) as [level, name] (level)}
						<p class="pt-1">
							<Check label={name} name="second" value={level} checked={now.second.includes(level as 'owner')} />
						</p>
					{/each}
				</fieldset>
				<label
					>A session ends when nobody has used it for so many hours<input
						class="input mt-1 block w-28"
						type="number"
						name="idle-hours"
						min="1"
						max="72"
						required
						value={now.idleHours}
					/></label
				>
				<label
					>and at the latest after so many days<input
						class="input mt-1 block w-28"
						type="number"
						name="longest-days"
						min="1"
						max="30"
						required
						value={now.longestDays}
					/></label
				>
				{#if form}<p role="alert" class={'say' in form ? 'wrong' : 'text-moss'}>
						{'say' in form ? form.say : 'Saved.'}
					</p>{/if}
				<p><button class="button primary">Save</button></p>
			</fieldset>
		</form>
	</section>
	<section aria-labelledby="directory">
		<h2 id="directory" class="border-b border-hairline pb-2 text-[19px]">The office’s directory</h2>
		{#if data.directory}
			<p class="pt-3">
				People may also come through <b>{data.directory.name}</b>,
				<span class="font-mono text-[14px] wrap-anywhere">{data.directory.issuer}</span>.
			</p>
			<ul class="list-inside list-disc pt-2">
				{#each data.directory.levels as rule (`${rule.claim}:${rule.value}`)}
					<li><span class="font-mono text-[14px]">{rule.claim}: {rule.value}</span> makes a {rule.level}</li>
				{/each}
			</ul>
		{:else}
			<p class="pt-3 text-quiet">
				None. Whoever runs this Pellum can name an OpenID provider when starting it; docs/running.md tells how.
			</p>
		{/if}
	</section>
</main>
