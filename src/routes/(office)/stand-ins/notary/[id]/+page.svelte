<script lang="ts">
	import { enhance } from '$app/forms';
	import { keepFilled } from '$lib/ui/forms';
	import { moment } from '$lib/ui/dates';
	import NotaryForm from '$lib/ui/notary/NotaryForm.svelte';
	import Files from '$lib/ui/parts/Files.svelte';

	let { data, form } = $props();
	const notary = $derived(data.notary);
	const zone = $derived(data.organisation.zone);
</script>

<svelte:head><title>{notary?.name ?? 'A new notary'} · Pellum</title></svelte:head>
<main id="main" class="max-w-5xl px-6 py-5">
	<p><a class="text-thread underline" href="/stand-ins/notary">All notaries</a></p>
	<h1 class="py-2 text-[19px]">{notary?.name ?? 'A new notary'}</h1>
	<div class="flex flex-wrap gap-8">
		<form method="POST" action="?/keep" use:enhance={keepFilled} class="min-w-0 flex-[1_1_380px]">
			<NotaryForm given={form?.given ?? notary} zone={data.organisation.zone} zones={data.zones} />
			<p class="wrong pt-2 empty:hidden" role="alert">{form?.say ?? ''}</p>
			<p class="pt-3"><button class="button primary">{notary ? 'Save' : 'Add the notary'}</button></p>
		</form>
		{#if notary}
			<div class="flex-[1_1_320px]">
				<h2 class="text-[17px]">Seal</h2>
				{#if notary.seal}<img
						class="my-2 size-32 border border-hairline bg-white p-2"
						src="/pictures/{notary.seal}"
						alt="The seal of {notary.name}"
					/>{/if}
				<form method="POST" action="?/seal" enctype="multipart/form-data">
					<Files label="Another picture" takes="PNG or JPEG" accept="image/png,image/jpeg" name="seal" compact />
					<p class="wrong empty:hidden" role="alert">{form?.sealSay ?? ''}</p>
					<p class="pt-2"><button class="button">Use this picture</button></p>
				</form>
				<form method="POST" action="?/chosen" use:enhance class="pt-5">
					<input type="hidden" name="ended" value={notary.ended ? 'no' : 'yes'} />
					<button class="button {notary.ended ? '' : 'grave'}"
						>{notary.ended ? 'Can be chosen again' : 'Not to be chosen any more'}</button
					>
				</form>
				<h2 class="pt-8 text-[17px]">Journal</h2>
				<p class="flex gap-2 py-2">
					<a class="button" href="/stand-ins/notary/{notary.id}/journal/pdf" download>As PDF</a>
					<a class="button" href="/stand-ins/notary/{notary.id}/journal/csv" download>As CSV</a>
				</p>
				<ol class="text-[14px]" reversed>
					{#each data.journal as line (line.n)}
						<li class="border-b border-hairline py-2">
							<b>{line.n}. {line.act}, {line.outcome}</b> <span class="text-quiet">{moment(line.at, zone)}</span>
							<br />{line.title}, <span class="font-mono">{line.reference}</span>
							{#each line.people as who (who.name)}<br />{who.name}{who.how ? `: ${who.how}` : ''}{/each}
							{#if line.fee}<br />Fee: {line.fee}{/if}
							{#if line.reason}<br /><span class="text-brick">{line.reason}</span>{/if}
						</li>
					{:else}<li class="py-2 font-serif text-quiet">Nothing was done or refused yet.</li>{/each}
				</ol>
			</div>
		{/if}
	</div>
</main>
