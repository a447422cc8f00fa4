<script lang="ts">
	import Files from '$lib/ui/parts/Files.svelte';
	import Pick from '$lib/ui/parts/Pick.svelte';
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import Check from '$lib/ui/parts/Check.svelte';
	import { tell } from '$lib/ui/parts/told';

	let { data, form } = $props();
	const owner = $derived(data.me.level === 'owner');
	// shapes of the failures differ by form; each part of the page looks at its own
	const said = $derived((form ?? {}) as Record<string, string | boolean | undefined>);

	async function back(before: object) {
		const body = new FormData();
		body.set('before', JSON.stringify(before));
		const answer = await fetch('?/back', { method: 'POST', body, headers: { 'x-sveltekit-action': 'true' } });
		const done = (await answer.json()) as { type: string };
		await invalidateAll();
		tell(done.type === 'success' ? 'As it was before' : 'It could not be undone; save the old values again.');
	}
</script>

<svelte:head><title>Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto max-w-5xl px-6 py-6">
	<section aria-labelledby="organisation" class="max-w-xl">
		<h1 id="organisation" class="border-b border-hairline pb-2 text-[19px]">Organisation</h1>
		<form
			method="POST"
			action="?/organisation"
			enctype="multipart/form-data"
			use:enhance={() =>
				async ({ result, update }) => {
					await update({ reset: false });
					const done =
						result.type === 'success' ? (result.data as { changed?: string[]; before?: object } | undefined) : null;
					if (done?.changed && done.changed.length > 0)
						tell(`Changed: ${done.changed.join(', ')}`, { run: () => back(done.before!) });
				}}
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
							/><Check label="take it away" name="remove-logo" />
						</p>
					{/if}
				</div>
				<Pick
					label="Time zone"
					name="zone"
					value={data.settings.zone}
					options={data.zones.map((zone) => [zone, zone.replaceAll('_', ' ')])}
				/>
				<Check
					label="The record says how long each page was in view"
					name="seen-pages"
					checked={data.settings.seenPages ?? false}
				/>
				<Check
					label="Count at which fields of a template people stumble: never who, nor what they typed"
					name="stumbles"
					checked={data.settings.stumbles ?? false}
				/>
				<Check
					label="Documents of a packet that is out may be exchanged, as long as nobody has finished"
					name="exchange"
					checked={data.settings.exchange ?? false}
				/>
				<Check
					label="Sheets may be dropped into the folders of batches that stand open, on the machine that Pellum runs on"
					name="sheetsIn"
					checked={data.settings.sheetsIn ?? false}
				/>
				<label
					>Packets of a batch in a minute, at most <span class="text-quiet">empty: as fast as can be</span><input
						class="input mt-1 block w-28!"
						type="number"
						name="pace"
						min="1"
						max="6000"
						value={data.settings.pace ?? ''}
					/></label
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
</main>
