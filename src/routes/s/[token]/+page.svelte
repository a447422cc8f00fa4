<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { dayIn, isoDay } from '$lib/core/calendar';
	import { live } from '$lib/core/field';
	import type { Paper } from '$lib/core/packet';
	import { dutyVerb } from '$lib/core/route';
	import { serverKeeper } from '$lib/ui/signing/keeper';
	import { Signing, type Turn } from '$lib/ui/signing/signing.svelte';
	import SignPages from '$lib/ui/signing/SignPages.svelte';
	import TurnPage from '$lib/ui/signing/TurnPage.svelte';
	import { Dialog } from 'bits-ui';
	import { untrack } from 'svelte';

	let { data } = $props();
	const view = $derived(data.view);
	const base = $derived(`/s/${page.params.token}`);
	const verb = $derived(dutyVerb(view.me.duty));
	const until = $derived(view.deadline ? dayIn(view.zone, view.deadline) : null);
	const make = (turn: Turn) => new Signing(serverKeeper(`/s/${page.params.token}`), turn);
	let signing = $state.raw(untrack(() => (data.view.state === 'turn' ? make(data.view) : null)));

	let agreed = $state(false);
	let busy = $state(false);
	let wrong = $state('');
	let declining = $state(false);
	let reason = $state('');
	let zoom = $state(1);
	let later = $state(false);

	const before = $derived(view.route.filter((p) => !p.me && p.state === 'done').map((p) => p.name));
	const after = $derived.by(() => {
		const me = view.route.find((p) => p.me)!;
		const next = view.route.filter((p) => !p.me && p.duty !== 'gets a copy' && p.state !== 'done' && p.stop >= me.stop);
		return next.length === 0
			? 'After you everyone gets the sealed copy.'
			: `After you: ${next.map((p) => `${p.name} ${p.duty}`).join(', then ')}; then everyone gets the sealed copy.`;
	});
	const title = $derived(`${verb[0]!.toUpperCase()}${verb.slice(1)}: ${view.title}`);
	const paperUrl = (paper: Paper) => `${base}/papers/${paper.id}`;
	const doneWord = { signs: 'signed', approves: 'approved', 'fills in': 'filled this in', 'gets a copy': 'had this' };

	async function post(what: string, body: object): Promise<boolean> {
		busy = true;
		wrong = '';
		try {
			const response = await fetch(`${base}/${what}`, {
				method: 'POST',
				headers: { 'Content-Type': 'application/json' },
				body: JSON.stringify(body)
			});
			if (!response.ok) wrong = (await response.json()).say ?? 'It did not work. Try again in a moment.';
			return response.ok;
		} catch {
			wrong = 'No connection. Nothing was lost; try again in a moment.';
			return false;
		} finally {
			busy = false;
		}
	}

	async function goOn() {
		if (!(await post('consent', {}))) return;
		await invalidateAll();
		if (data.view.state === 'turn') signing = make(data.view);
	}

	async function finish() {
		if (!signing || busy) return;
		busy = true;
		const no = await signing.finish();
		busy = false;
		wrong = no ?? '';
		// whatever the answer, the page shows what holds now
		await invalidateAll();
		if (data.view.state !== 'turn') signing = null;
	}

	async function decline() {
		if (!(await post('decline', { reason }))) return;
		declining = false;
		await invalidateAll();
		signing = null;
	}

	// the copies are made shortly after the last one has finished
	$effect(() => {
		if (view.state !== 'finished' || !view.complete || view.copies.length > 0) return;
		const timer = setInterval(() => void invalidateAll(), 2000);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>{title}</title></svelte:head>

<header class="sticky top-0 z-20 flex min-h-[72px] items-center gap-4 border-b border-hairline bg-sheet px-4 sm:px-6">
	<span
		class="grid size-[34px] shrink-0 place-items-center overflow-hidden rounded-sm"
		style:background={data.organisation.logo ? 'white' : data.organisation.colour}
	>
		{#if data.organisation.logo}<img src="/logo" alt={view.organisation} class="max-h-full max-w-full" />
		{:else}<svg width="26" height="14" aria-hidden="true"
				><line x1="5" x2="17" y1="7" y2="7" stroke="#fffefa" stroke-width="2" /><circle
					cx="5"
					cy="7"
					r="3.5"
					fill="#fffefa"
				/><circle cx="20" cy="7" r="4" fill="none" stroke="#fffefa" stroke-width="2" /></svg
			>{/if}
	</span>
	<div class="min-w-0 flex-1 py-2">
		<h1 class="truncate text-[18px] leading-7 sm:text-[20px]">{view.title}</h1>
		<p class="text-[14px] leading-[18px] text-quiet">
			from {view.sender}, {view.organisation}{#if until && view.state === 'turn'}&nbsp;· to {verb} by {until}{/if}
		</p>
	</div>
	{#if signing && view.state === 'turn' && view.consented}
		<div class="flex items-center gap-1">
			<button
				class="plain hidden size-[44px] sm:block"
				aria-label="Smaller pages"
				onclick={() => (zoom = Math.max(0.5, zoom - 0.25))}>−</button
			>
			<button class="plain size-[44px]" aria-label="Larger pages" onclick={() => (zoom = Math.min(3, zoom + 0.25))}
				>+</button
			>
			<details class="relative">
				<summary class="flex size-[44px] cursor-pointer list-none items-center justify-center text-xl" aria-label="More"
					>⋯</summary
				>
				<div class="absolute right-0 z-30 grid w-56 rounded-sm border border-hairline bg-sheet p-2 shadow-(--float)">
					<button
						class="min-h-[44px] px-2 text-left hover:bg-wash"
						onclick={async () => (later = (await signing?.keep()) ?? false)}>Save for later</button
					>
					{#each [...view.papers, ...view.attachments] as paper (paper.id)}<a
							class="flex min-h-[44px] items-center px-2 no-underline hover:bg-wash"
							href="{base}/papers/{paper.id}?name=1"
							download>Download “{paper.name}”</a
						>{/each}
					<button class="min-h-[44px] px-2 text-left text-brick hover:bg-wash" onclick={() => (declining = true)}
						>Decline…</button
					>
				</div>
			</details>
		</div>
	{/if}
</header>

{#if view.state === 'turn' && !view.consented}
	<main id="main" class="mx-auto max-w-2xl px-5 py-8 text-[17px] leading-7">
		<h2 class="pb-3 text-xl">Dear {view.me.name},</h2>
		<p>{view.sender} of {view.organisation} asks you to {verb} “{view.title}”. You need no account.</p>
		<ol class="list-decimal py-4 pl-6">
			<li>
				You read {view.papers.length === 1 ? 'the document' : `${view.papers.length} documents`}{before.length > 0
					? `, which ${before.join(' and ')} ${before.length === 1 ? 'has' : 'have'} been through`
					: ''}.
			</li>
			<li>You are led through what is yours to answer.</li>
			<li>You finish. {after}</li>
		</ol>
		{#if view.message}<blockquote class="mb-5 border-l-2 border-line pl-4 whitespace-pre-wrap">
				{view.message}
			</blockquote>{/if}
		<section aria-labelledby="consent" class="rounded-sm border border-hairline bg-sheet p-4 text-[15px] leading-6">
			<h2 id="consent" class="pb-1 text-[16px]">Signing electronically</h2>
			<ul class="list-disc pl-5">
				{#each data.consent as line (line)}<li>{line}</li>{/each}
			</ul>
			<label class="flex min-h-[44px] items-center gap-3 pt-2 font-semibold"
				><input class="size-5" type="checkbox" bind:checked={agreed} /> I agree</label
			>
		</section>
		<p class="wrong pt-3 empty:hidden" role="alert">{wrong}</p>
		<p class="pt-5">
			<button class="button primary large w-full sm:w-auto" disabled={!agreed || busy} onclick={goOn}
				>Go to the {view.papers.length === 1 ? 'document' : 'documents'}</button
			>
		</p>
	</main>
{:else if view.state === 'turn' && signing}
	<TurnPage
		{signing}
		papers={view.papers}
		{paperUrl}
		name={view.me.name}
		{verb}
		zone={view.zone}
		{after}
		{zoom}
		{busy}
		wrong={declining ? '' : wrong}
		{later}
		onfinish={finish}
	/>
{:else if view.state === 'finished'}
	<main id="main" class="mx-auto max-w-3xl px-5 py-8 text-[17px] leading-7">
		<h2 class="pb-2 text-xl">{view.me.duty === 'gets a copy' ? 'Your copy' : `You have ${doneWord[view.me.duty]}`}</h2>
		{#if !view.complete}<p class="pb-5">
				Thank you, {view.me.name}. {after.replace('After you: ', 'Now ')} It comes by e-mail; this link shows it as well.
			</p>
		{:else if view.copies.length === 0}<p class="pb-5" role="status">
				Everyone is done. The sealed copies are being made; this takes a moment.
			</p>
		{:else}
			<p class="pb-3">Everyone is done. The seal on these files shows any later change.</p>
			<ul class="flex flex-wrap gap-2 pb-6">
				{#each view.copies as copy (copy.what)}<li>
						<a class="button large" href="{base}/copies/{copy.what}" download>{copy.name}</a>
					</li>{/each}
			</ul>
		{/if}
		{#if view.papers.length > 0}<div class="bg-desk p-3">
				<SignPages
					papers={view.papers}
					fields={view.fields}
					now={live({ fields: view.fields }, view.answers, isoDay(view.zone, view.now))}
					locale={view.locale}
					{paperUrl}
					pictures="{base}/pictures"
				/>
			</div>{/if}
	</main>
{:else}
	<main id="main" class="mx-auto max-w-2xl px-5 py-12 text-[17px] leading-7">
		<h2 class="pb-2 text-xl">{view.state === 'waiting' ? 'Not yet your turn' : 'This has ended'}</h2>
		<p>
			{view.state === 'waiting'
				? 'Somebody before you is still at it. You get a message when it is your turn; this link works then.'
				: view.state === 'ended'
					? view.why
					: ''}
		</p>
	</main>
{/if}

<Dialog.Root bind:open={declining}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
		<Dialog.Content
			class="fixed top-24 left-1/2 z-50 w-[480px] max-w-[94vw] -translate-x-1/2 rounded-sm border border-hairline bg-sheet p-6 shadow-(--float)"
		>
			<Dialog.Title class="font-serif text-lg font-semibold">Decline</Dialog.Title>
			<Dialog.Description class="pt-1 pb-3"
				>This ends it for everyone. {view.sender} and those who have had it see your reason. It can't be taken back.</Dialog.Description
			>
			<label>Your reason<textarea class="input mt-1 h-24" maxlength="2000" bind:value={reason}></textarea></label>
			<p class="wrong empty:hidden" role="alert">{wrong}</p>
			<p class="flex gap-2 pt-3">
				<button class="button large grave" disabled={busy} onclick={decline}>Decline to {verb}</button><Dialog.Close
					class="button large">Go back</Dialog.Close
				>
			</p>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
