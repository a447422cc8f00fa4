<script lang="ts">
	import Files from '$lib/ui/parts/Files.svelte';
	import Pick from '$lib/ui/parts/Pick.svelte';
	import { enhance } from '$app/forms';
	import Holidays from '$lib/ui/settings/Holidays.svelte';

	let { data, form } = $props();
	const owner = $derived(data.me.level === 'owner');
	// shapes of the failures differ by form; each part of the page looks at its own
	const said = $derived((form ?? {}) as Record<string, string | boolean | undefined>);
</script>

<svelte:head><title>Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto grid max-w-5xl gap-10 px-6 py-6 md:grid-cols-2">
	<section aria-labelledby="organisation">
		<h1 id="organisation" class="border-b border-hairline pb-2 text-[19px]">Organisation</h1>
		<form
			method="POST"
			action="?/organisation"
			enctype="multipart/form-data"
			use:enhance={() =>
				({ update }) =>
					update({ reset: false })}
		>
			<fieldset disabled={!owner} class="grid gap-4 pt-4">
				<label
					>Name<input
						class="input mt-1"
						name="name"
						required
						maxlength="120"
						value={said.form === 'organisation' && said.name ? said.name : data.settings.name}
					/></label
				>
				<label
					>Colour <span class="text-[14px] text-quiet">on the signing page and in messages</span>
					<input
						class="mt-1 block h-9 w-24 rounded-sm border border-line"
						type="color"
						name="colour"
						value={said.form === 'organisation' && said.colour ? said.colour : data.settings.colour}
					/>
				</label>
				<div>
					<p class="pb-1">Logo</p>
					<Files label="Logo" takes="PNG or JPEG, to 5 MB" name="logo" accept="image/png,image/jpeg" />
					{#if data.settings.logo}
						<p class="flex items-center gap-4 pt-2">
							<img
								src="/logo?{data.settings.logo.slice(0, 8)}"
								alt="The logo now"
								class="max-h-12 max-w-40 bg-white p-1"
							/><label><input type="checkbox" name="remove-logo" /> take it away</label>
						</p>
					{/if}
				</div>
				<Pick
					label="Time zone"
					name="zone"
					value={data.settings.zone}
					options={data.zones.map((zone) => [zone, zone.replaceAll('_', ' ')])}
				/>
				<label class="flex items-center gap-2"
					><input type="checkbox" name="seen-pages" checked={data.settings.seenPages ?? false} /> The record says how long
					each page was in view</label
				>
				<label class="flex items-center gap-2"
					><input type="checkbox" name="exchange" checked={data.settings.exchange ?? false} /> Documents of a packet that
					is out may be exchanged, as long as nobody has finished</label
				>
				{#if said.form === 'organisation'}<p role="alert" class={said.say ? 'wrong' : 'text-moss'}>
						{said.say ?? 'Saved.'}
						{#if said.prove}<a class="underline" href="/prove?to=/settings" target="_blank">Show it in another tab</a>,
							then save again.{/if}
					</p>{/if}
				{#if owner}<p><button class="button primary">Save</button></p>{:else}<p class="text-quiet">
						Only an owner changes these.
					</p>{/if}
			</fieldset>
		</form>
	</section>
	<div class="grid content-start gap-2">
		<Holidays days={data.holidays} {owner} {said} />
		<h2 class="border-b border-hairline pt-8 pb-2 text-[17px]">Outside</h2>
		<p class="pt-3">Mail goes to {data.mail}, text messages to the Phone stand-in.</p>
		<p class="pt-2">
			<a class="text-thread underline" href="/calendar" download>Deadlines and terms as a calendar file</a>
		</p>
		<p class="pt-2"><a class="text-thread underline" href="/settings/about">About this Pellum</a></p>
		<p class="pt-2">Whoever checks a sealed copy trusts these certificates:</p>
		<ul class="list-inside list-disc pt-1">
			{#each data.roots as root (root)}<li>
					<a class="inline-block py-0.5 font-mono text-[14px] text-thread underline" href="/settings/trust/{root}"
						>{root}</a
					>
				</li>{/each}
		</ul>
	</div>
</main>
