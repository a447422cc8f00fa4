<script lang="ts">
	import { enhance } from '$app/forms';
	import { hoursInWords } from '$lib/core/notary';
	import { day, meeting } from '$lib/ui/dates';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';

	let { data } = $props();
	const zone = $derived(data.organisation.zone);
	$effect(() => keepCurrent());
</script>

<svelte:head><title>Notaries · Pellum</title></svelte:head>
<main id="main" class="max-w-5xl px-6 py-5">
	<h1 class="text-[19px]">
		Notary <span class="text-[14px] font-normal text-quiet"
			>a stand-in: notaries with a commission and a key of their own</span
		>
	</h1>
	<p class="py-3">
		<a class="button" href="/stand-ins/notary/new">Add a notary</a>
		<a class="button" href="/stand-ins">All stand-ins</a>
	</p>
	{#each data.notaries as one (one.id)}
		<section class="mb-6 border-t border-hairline pt-4" aria-labelledby="n{one.id}">
			<h2 id="n{one.id}" class="text-[17px]">
				<a class="text-thread underline" href="/stand-ins/notary/{one.id}">{one.name}</a>
				{#if one.ended}<span class="text-[14px] font-normal text-quiet">not chosen any more</span>{/if}
			</h2>
			<p class="text-[14px]">
				{one.jurisdiction} · commission <span class="font-mono">{one.number}</span>, {one.from} to {one.until} · {hoursInWords(
					one
				)}
			</p>
			{#if one.fault}<p class="text-brick">{one.fault}</p>{/if}
			<form method="POST" action="?/play" use:enhance class="flex flex-wrap items-center gap-2 py-2">
				<input type="hidden" name="notary" value={one.id} />
				<span class="text-[14px]">{one.plays ? 'The stand-in plays them.' : 'Somebody sits at their desk.'}</span>
				<button class="button" name="plays" value={one.plays ? 'no' : 'yes'}
					>{one.plays ? 'Sit there oneself' : 'Let the stand-in play'}<span class="unseen">: {one.name}</span></button
				>
			</form>
			{#if one.sessions.length > 0}
				<ul aria-label="Sessions of {one.name}">
					{#each one.sessions as session (session.packet)}
						<li class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hairline py-2">
							<a class="font-semibold" href="/packets/{session.packet}">{session.title}</a>
							<span class="font-mono text-[14px] text-quiet">{session.reference}</span>
							<span class="text-[14px]"
								>{session.running
									? 'going on'
									: session.starts
										? `set for ${meeting(session.starts, zone, data.now)}`
										: `since ${day(session.since, zone, data.now)}`} · {session.signed} of {session.people} signed</span
							>
							<form method="POST" action="?/sit" class="ms-auto">
								<input type="hidden" name="packet" value={session.packet} />
								<button class="button"
									>Sit at the desk<span class="unseen"> of {one.name}: {session.title}</span></button
								>
							</form>
						</li>
					{/each}
				</ul>
			{:else}<p class="font-serif text-quiet">No session is to come.</p>{/if}
		</section>
	{:else}
		<p class="font-serif text-quiet">
			No notary is here yet. Add one; after that somebody on a route can have the duty “notarises”.
		</p>
	{/each}
</main>
