<script lang="ts">
	import { moment } from '$lib/ui/dates';
	import More from '$lib/ui/parts/More.svelte';
	import Places from '$lib/ui/records/Places.svelte';

	let { data } = $props();
	const zone = $derived(data.organisation.zone);
</script>

<svelte:head><title>Gone · Records · Pellum</title></svelte:head>
<main id="main" class="px-6 py-5">
	<div class="flex flex-wrap items-center gap-6 pb-3">
		<h1 class="text-[19px]">Gone</h1>
		<Places mayAct={data.mayAct} />
	</div>
	<p class="max-w-2xl pb-3 text-quiet">
		What has been disposed of. Its words are nowhere any more; its hashes stay in the record, so that whoever kept a
		copy can still prove it.
	</p>
	<ul>
		{#each data.gone as one (one.number)}
			<li class="border-b border-hairline py-3">
				<div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
					<h2 class="text-[16px]">{one.called}</h2>
					<p class="min-w-48 flex-1">
						{one.lines.length === 1 ? 'one packet' : `${one.lines.length} packets`}, {moment(one.at, zone)}, by {one.by}{one.second
							? `; ${one.second} had agreed`
							: ''}
					</p>
					{#if one.certificate}<a class="button" href="/records/certificate?n={one.number}" download>Certificate</a>
					{:else}<span class="text-quiet">its certificate is being made</span>{/if}
				</div>
				<p class="font-serif wrap-anywhere">{one.why}</p>
				<More label="What went">
					<ul class="grid gap-1 py-1 text-[14px]">
						{#each one.lines as line (line.reference)}<li>
								<span class="font-mono">{line.reference}</span>
								{[line.type, line.template].filter(Boolean).join(', ')}, {line.state}
								{line.ended}, {line.documents === 1 ? 'one document' : `${line.documents} documents`}, {line.by}
							</li>{/each}
					</ul>
				</More>
			</li>
		{:else}<li class="max-w-md py-8 font-serif text-quiet">
				Nothing has been disposed of yet. What is to go is under <a class="text-thread underline" href="/records/due"
					>To go</a
				>.
			</li>{/each}
	</ul>
</main>
