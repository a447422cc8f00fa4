<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import { moment } from '$lib/ui/dates';

	let { data, form } = $props();
	const now = $derived(form ?? data.setting);
	const size = (bytes: number) => `${(bytes / 1024 / 1024).toFixed(1)} MB`;
</script>

<svelte:head><title>Backups · Settings · Pellum</title></svelte:head>
<main id="main" class="mx-auto grid max-w-5xl gap-10 px-6 py-6 md:grid-cols-2">
	<section aria-labelledby="backups">
		<h1 id="backups" class="border-b border-hairline pb-2 text-[19px]">Backups</h1>
		<p class="pt-2 text-[14px] text-quiet">
			Each is whole, made while everything goes on, and checked before it counts. The locked keys lie beside it in a
			file of their own; keep both elsewhere too, and apart. How to put one back stands in docs/running.md.
		</p>
		<form method="POST" action="?/save" use:enhance={keepFilled} class="grid gap-4 pt-4">
			<label
				>One every so many hours <span class="text-[14px] text-quiet">0: none by itself</span><input
					class="input mt-1 block w-28"
					type="number"
					name="hours"
					min="0"
					max="168"
					required
					value={now.hours}
				/></label
			>
			<label
				>So many are kept<input
					class="input mt-1 block w-28"
					type="number"
					name="keep"
					min="1"
					max="365"
					required
					value={now.keep}
				/></label
			>
			{#if form}<p role="alert" class={form.say ? 'wrong' : 'text-moss'}>
					{form.say || ('asked' in form ? 'It is being made; it stands in the list when it is checked.' : 'Saved.')}
				</p>{/if}
			<p><button class="button primary">Save</button></p>
		</form>
		<form method="POST" action="?/now" use:enhance={keepFilled} class="pt-3">
			<button class="button">Make one now</button>
		</form>
		{#if data.demo}<p class="pt-3 text-[14px] text-quiet">The demo makes none by itself.</p>{/if}
	</section>
	<section aria-labelledby="there">
		<h2 id="there" class="border-b border-hairline pb-2 text-[19px]">Those there are</h2>
		<ul>
			{#each data.list as one (one.name)}
				<li class="border-b border-hairline py-2">
					<p class="font-mono text-[14px] wrap-anywhere">{one.name}</p>
					<p class="text-[14px] text-quiet">{moment(one.at, data.organisation.zone)}, {size(one.bytes)}</p>
				</li>
			{:else}
				<li class="py-3 text-quiet">None yet.</li>
			{/each}
		</ul>
	</section>
</main>
