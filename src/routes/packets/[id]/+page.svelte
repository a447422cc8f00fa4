<script lang="ts">
	import { isoDay } from '$lib/core/calendar';
	import { live } from '$lib/core/field';
	import { day, moment } from '$lib/ui/dates';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import { saidTo, type Answered } from '$lib/ui/packet/form';
	import BeingCorrected from '$lib/ui/packet/BeingCorrected.svelte';
	import FolderOf from '$lib/ui/packet/FolderOf.svelte';
	import Held from '$lib/ui/packet/Held.svelte';
	import ReasonDialog from '$lib/ui/packet/ReasonDialog.svelte';
	import SmallForm from '$lib/ui/packet/SmallForm.svelte';
	import StillToCome from '$lib/ui/packet/StillToCome.svelte';
	import Wordings from '$lib/ui/packet/Wordings.svelte';
	import SignPages from '$lib/ui/signing/SignPages.svelte';
	import LongThread from '$lib/ui/thread/LongThread.svelte';

	let { data, form } = $props();
	const packet = $derived(data.packet);
	const mayAct = $derived(data.may.change);
	const out = $derived(packet.status === 'out');
	const open = $derived(out || packet.status === 'held');
	const answered = $derived(form as Answered | null);
	const held = $derived(packet.people.find((p) => p.standing === 'held'));
	const myTurn = $derived(
		out &&
			packet.people.some(
				(p) => p.email.toLowerCase() === data.account.email.toLowerCase() && ['notified', 'opened'].includes(p.standing)
			)
	);
	const now = $derived(
		live({ fields: packet.fields }, packet.answers, isoDay(packet.zone, packet.endedAt ?? data.now))
	);
	const left = $derived(
		packet.people.filter(
			(p) =>
				(open && !['done', 'skipped', 'declined'].includes(p.standing)) ||
				(packet.sealed && p.deliver === 'link' && p.duty === 'gets a copy')
		)
	);
	const facts = $derived(
		(
			[
				['Type', packet.sending.type],
				['Your reference', packet.sending.ownReference],
				['Description', packet.sending.description],
				['Valid until', packet.termEnd ? day(`${packet.termEnd}T12:00:00Z`, packet.zone, data.now) : undefined],
				[
					'Handed over',
					packet.handOvers.map((one) => `${one.from.name} to ${one.to.name}: ${one.why}`).join('; ') || undefined
				]
			] as [string, string | undefined][]
		).filter((fact): fact is [string, string] => fact[1] !== undefined && fact[1] !== '')
	);
	let moving = $state(false);
	let renewing = $state(false);
	let only = $state('');
	let withdrawing = $state(false);
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
						<a class="text-thread underline" href="/templates?id={made.template}">{made.title}</a>, version {made.version}{/each}{#if packet.follows}&nbsp;·
						a new version of
						<a class="text-thread underline" href="/packets/{packet.follows.id}">{packet.follows.reference}</a
						>{/if}{#if packet.followedBy}&nbsp;· followed by
						<a class="text-thread underline" href="/packets/{packet.followedBy.id}">{packet.followedBy.reference}</a
						>{/if}{#if packet.deadline && open}&nbsp;· until {day(packet.deadline, packet.zone, data.now)}{/if}
				</p>
				<p>{packet.why}</p>
				<p class="wrong empty:hidden" role="alert">
					{packet.correction ? '' : saidTo(answered, 'begin-correction')}
				</p>
			</div>
			<div class="flex flex-wrap gap-2">
				{#if myTurn}<form method="POST" action="/packets/{packet.id}/sign">
						<button class="button primary">Read and sign</button>
					</form>{/if}
				{#if out && mayAct && !packet.correction}<form method="POST" action="?/begin-correction">
						<button class="button">Correct…</button>
					</form>{/if}
				{#if packet.status !== 'completed' && mayAct && !packet.followedBy}<button
						class="button"
						onclick={() => (renewing = true)}>New version…</button
					>{/if}
				{#if open && mayAct}<button class="button grave" onclick={() => (withdrawing = true)}>Withdraw…</button>{/if}
				{#if data.account.level !== 'viewer'}<form method="POST" action="/packets/{packet.id}/template">
						<button class="button">Keep as template</button>
					</form>{/if}
				{#if packet.status === 'completed'}<a class="button" href="/packets/{packet.id}/copies/answers"
						>Answers as JSON</a
					><a class="button" href="/packets/{packet.id}/copies/answers-csv">as CSV</a>{/if}
				<a class="button" href="/packets/{packet.id}/copies/record">Record as JSON</a>
			</div>
		</div>
		<div class="pt-3"><LongThread thread={packet.thread} now={data.now} ended={!open} /></div>
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
			{#if packet.correction && mayAct}
				<BeingCorrected {packet} now={data.now} {answered} />
			{/if}
			{#if packet.status === 'held' && data.may.judge && held}
				<Held person={held.id} name={held.name} {answered} />
			{/if}
			{#if packet.wordings.length > 0}
				<Wordings
					wishes={packet.wordings}
					zone={packet.zone}
					now={data.now}
					mayAct={mayAct && open}
					{answered}
					onversion={() => (renewing = true)}
				/>
			{/if}
			{#if left.length > 0 && mayAct && !packet.correcting}
				<StillToCome packet={packet.id} people={left} now={data.now} {answered} />
				{#if packet.deadline && open}
					{#if moving}
						<SmallForm
							action="?/deadline"
							button="Move it"
							say={saidTo(answered, 'deadline')}
							ondone={() => (moving = false)}
							onleave={() => (moving = false)}
						>
							<label
								>New last day<input
									class="input mt-1"
									type="date"
									name="day"
									required
									value={answered?.kept?.['day'] ?? isoDay(packet.zone, packet.deadline)}
								/></label
							>
						</SmallForm>
					{:else}<p class="pb-5">
							<button class="button" onclick={() => (moving = true)}>Move the deadline…</button>
						</p>{/if}
				{/if}
			{/if}
			<FolderOf folder={packet.folder} folders={data.folders} {mayAct} {answered} />
			{#if facts.length > 0}
				<dl class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 pb-5 text-[14px]">
					{#each facts as [name, value] (name)}<dt class="text-quiet">{name}</dt>
						<dd class="wrap-anywhere">{value}</dd>{/each}
				</dl>
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
					<li class="border-b border-hairline py-1.5 text-[14px] leading-5 wrap-anywhere">
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

<ReasonDialog
	bind:open={withdrawing}
	form="withdraw"
	title="Withdraw {packet.reference}"
	text="It ends for everyone at once. Those who have had it are told, with your reason. This can't be taken back."
	button="Withdraw it"
	{answered}
/>
<ReasonDialog
	bind:open={renewing}
	form="version"
	title="A new version of {packet.reference}"
	text="{open
		? 'This one is withdrawn: those who have had it are told, with your reason. '
		: ''}You get a draft with the same documents, people and fields, which will link to it."
	button={open ? 'Withdraw it and go on' : 'Make the draft'}
	{answered}
/>
