<script lang="ts">
	import { enhance } from '$app/forms';
	import { isoDay } from '$lib/core/calendar';
	import { live } from '$lib/core/field';
	import { day, moment } from '$lib/ui/dates';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import SignPages from '$lib/ui/signing/SignPages.svelte';
	import LongThread from '$lib/ui/thread/LongThread.svelte';
	import { Dialog } from 'bits-ui';

	let { data, form } = $props();
	const packet = $derived(data.packet);
	const mayAct = $derived(data.account.level !== 'viewer');
	const out = $derived(packet.status === 'out');
	const myTurn = $derived(
		out &&
			packet.people.some(
				(p) => p.email.toLowerCase() === data.account.email.toLowerCase() && ['notified', 'opened'].includes(p.standing)
			)
	);
	const now = $derived(
		live({ fields: packet.fields }, packet.answers, isoDay(packet.zone, packet.endedAt ?? data.now))
	);
	const open = $derived(packet.people.filter((p) => out && p.standing !== 'done'));
	let only = $state('');
	let withdrawing = $state(false);
	let correcting = $state<string | null>(null);
	const record = $derived(only === '' ? packet.record : packet.record.filter((e) => e.person === only));

	$effect(() => keepCurrent((id) => id === packet.id || id === ''));
</script>

<svelte:head><title>{packet.title} · Pellum</title></svelte:head>
<main id="main">
	<div class="border-b border-hairline px-6 pt-4 pb-2">
		<div class="flex flex-wrap items-start gap-x-6 gap-y-2">
			<div class="min-w-0 flex-1">
				<h1 class="text-[22px] leading-7">{packet.title}</h1>
				<p class="text-quiet">
					<span class="font-mono">{packet.reference}</span> · {packet.status} · sent by {packet.sender}
					{day(packet.sentAt, packet.zone, data.now)}{#each packet.from as made (made.template)}&nbsp;· from
						<a class="text-thread underline" href="/templates?id={made.template}">{made.title}</a>, version {made.version}{/each}{#if packet.deadline && out}&nbsp;·
						until {day(packet.deadline, packet.zone, data.now)}{/if}
				</p>
				<p>{packet.why}</p>
			</div>
			<div class="flex flex-wrap gap-2">
				{#if myTurn}<form method="POST" action="/packets/{packet.id}/sign">
						<button class="button primary">Read and sign</button>
					</form>{/if}
				{#if out && mayAct}<button class="button grave" onclick={() => (withdrawing = true)}>Withdraw…</button>{/if}
				{#if mayAct}<form method="POST" action="/packets/{packet.id}/template">
						<button class="button">Keep as template</button>
					</form>{/if}
				{#if packet.status === 'completed'}<a class="button" href="/packets/{packet.id}/copies/answers"
						>Answers as JSON</a
					><a class="button" href="/packets/{packet.id}/copies/answers-csv">as CSV</a>{/if}
				<a class="button" href="/packets/{packet.id}/copies/record">Record as JSON</a>
			</div>
		</div>
		<div class="pt-3"><LongThread thread={packet.thread} now={data.now} ended={!out} /></div>
	</div>
	<div class="flex flex-wrap">
		<section aria-label="Pages" class="min-w-0 flex-[3_1_560px] bg-desk px-6 py-5">
			{#if packet.sealed}
				<div class="mb-5 rounded-sm border border-hairline bg-sheet p-3">
					<h2 class="text-[15px]">Sealed copies</h2>
					<ul class="flex flex-wrap items-center gap-2 pt-2">
						{#each packet.papers as paper (paper.id)}
							<li>
								<a class="button" href="/packets/{packet.id}/copies/{paper.id}" download>
									<img class="h-10 border border-hairline" src="/papers/{paper.digest}/thumbnail" alt="" />{paper.name}
								</a>
							</li>
						{/each}
						{#each packet.attachments as file (file.id)}
							<li>
								<a class="button" href="/packets/{packet.id}/copies/{file.id}" download>{file.name}, unchanged</a>
							</li>
						{/each}
						{#each packet.files as file (file.what)}
							<li><a class="button" href="/packets/{packet.id}/copies/{file.what}" download>{file.name}</a></li>
						{/each}
						<li><a class="button" href="/packets/{packet.id}/copies/evidence" download>Evidence sheet</a></li>
					</ul>
				</div>
			{/if}
			{#if packet.sources.length > 0}
				<p class="pb-3 text-[14px]">
					Made from {#each packet.sources as source, i (`${source.paper} ${source.n}`)}{i > 0 ? ', ' : ''}<a
							class="text-thread underline"
							href="/papers/{source.paper}/source?n={source.n}"
							download>{source.name}</a
						>{/each}.
				</p>
			{/if}
			<SignPages
				papers={packet.papers}
				fields={packet.fields}
				{now}
				locale={packet.locale}
				paperUrl={(paper) => `/papers/${paper.digest}`}
				pictures="/pictures"
			/>
		</section>
		<section aria-labelledby="record" class="min-w-0 flex-[1_1_340px] px-5 py-5">
			{#if open.length > 0 && mayAct}
				<h2 class="text-[16px]">Still to come</h2>
				<ul class="pb-5">
					{#each open as person (person.id)}
						<li class="border-b border-hairline py-2">
							<p><b>{person.name}</b> <span class="text-quiet">{person.duty}</span></p>
							<p class="text-[14px] break-all {person.standing === 'unreachable' ? 'text-brick' : 'text-quiet'}">
								{person.email}{person.why ? ` · ${person.why}` : ''}
							</p>
							{#if correcting === person.id}
								<form
									method="POST"
									action="?/correct"
									class="pt-1"
									use:enhance={() =>
										async ({ result, update }) => {
											await update({ reset: false });
											if (result.type === 'success') correcting = null;
										}}
								>
									<input type="hidden" name="person" value={person.id} />
									<label
										>New address<input
											class="input mt-1"
											name="email"
											type="email"
											required
											value={form?.email ?? person.email}
										/></label
									>
									{#if form?.form === 'correct'}<p class="wrong" role="alert">{form.say}</p>{/if}
									<p class="flex gap-2 pt-2">
										<button class="button primary">Correct</button><button
											type="button"
											class="button"
											onclick={() => (correcting = null)}>Leave it</button
										>
									</p>
								</form>
							{:else}
								<button
									class="plain -ml-1"
									onclick={() => (correcting = person.id)}
									aria-label="Correct the address of {person.name}">Correct the address</button
								>
							{/if}
						</li>
					{/each}
				</ul>
			{/if}
			<div class="flex items-baseline gap-3 border-b border-ink pb-1">
				<h2 id="record" class="text-[16px]">Record</h2>
				<label class="ml-auto text-[14px]"
					><span class="unseen">Show the record of</span>
					<select class="input" bind:value={only}>
						<option value="">everyone</option>
						{#each packet.people as person (person.id)}<option value={person.id}>{person.name}</option>{/each}
					</select>
				</label>
			</div>
			<ol reversed>
				{#each record as event (event.n)}
					<li class="border-b border-hairline py-1.5 text-[14px] leading-5">
						{event.said}
						<time
							class="block text-[13px] text-quiet"
							datetime={event.at}
							title="{event.at}{event.from ? ` from ${event.from}` : ''}">{moment(event.at, packet.zone)}</time
						>
					</li>
				{/each}
			</ol>
		</section>
	</div>
</main>

<Dialog.Root bind:open={withdrawing}>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
		<Dialog.Content
			class="fixed top-28 left-1/2 z-50 w-[480px] max-w-[94vw] -translate-x-1/2 rounded-sm border border-hairline bg-sheet p-6 shadow-(--float)"
		>
			<Dialog.Title class="font-serif text-lg font-semibold">Withdraw {packet.reference}</Dialog.Title>
			<Dialog.Description class="pt-1 pb-3"
				>It ends for everyone at once. Those who have had it are told, with your reason. This can't be taken back.</Dialog.Description
			>
			<form
				method="POST"
				action="?/withdraw"
				use:enhance={() =>
					async ({ result, update }) => {
						await update({ reset: false });
						if (result.type === 'success') withdrawing = false;
					}}
			>
				<label>Reason<textarea class="input mt-1 h-24" name="reason" required>{form?.reason ?? ''}</textarea></label>
				{#if form?.form === 'withdraw'}<p class="wrong" role="alert">{form.say}</p>{/if}
				<p class="flex gap-2 pt-3">
					<button class="button grave">Withdraw it</button><Dialog.Close class="button">Keep it out</Dialog.Close>
				</p>
			</form>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
