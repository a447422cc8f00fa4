<script lang="ts">
	import Day from '$lib/ui/parts/Day.svelte';
	import { isoDay } from '$lib/core/calendar';
	import { live } from '$lib/core/field';
	import { day } from '$lib/ui/dates';
	import { keepCurrent } from '$lib/ui/frame/live.svelte';
	import { saidTo, type Answered } from '$lib/ui/packet/form';
	import AmendDialog from '$lib/ui/packet/AmendDialog.svelte';
	import BeingCorrected from '$lib/ui/packet/BeingCorrected.svelte';
	import FolderOf from '$lib/ui/packet/FolderOf.svelte';
	import Held from '$lib/ui/packet/Held.svelte';
	import Kept from '$lib/ui/packet/Kept.svelte';
	import OnPaper from '$lib/ui/packet/OnPaper.svelte';
	import PacketHead from '$lib/ui/packet/PacketHead.svelte';
	import ReasonDialog from '$lib/ui/packet/ReasonDialog.svelte';
	import RecordOf from '$lib/ui/packet/RecordOf.svelte';
	import Session from '$lib/ui/packet/Session.svelte';
	import SmallForm from '$lib/ui/packet/SmallForm.svelte';
	import StillToCome from '$lib/ui/packet/StillToCome.svelte';
	import Wordings from '$lib/ui/packet/Wordings.svelte';
	import { invalidateAll } from '$app/navigation';
	import type { PutAway } from '$lib/core/packet';
	import { tell } from '$lib/ui/parts/told';
	import { fileRows, type Deed } from '$lib/ui/records/filing';
	import SignPages from '$lib/ui/signing/SignPages.svelte';

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
				['Type', packet.type],
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
	let withdrawing = $state(false);
	let amending = $state(false);
	/** where it goes once it is withdrawn */
	let putting = $state<PutAway | null>(null);
	async function put(deed: Deed) {
		const came = await fileRows([packet], deed, invalidateAll);
		const wrong = came.wrong ?? came.refused[0]?.say;
		if (wrong) tell(wrong);
	}

	$effect(() => keepCurrent((id) => id === packet.id || id === ''));
</script>

<svelte:head><title>{packet.title} · Pellum</title></svelte:head>
<main id="main">
	<PacketHead
		likely={data.likely}
		{packet}
		now={data.now}
		{myTurn}
		{mayAct}
		mayPrepare={data.account.level !== 'viewer'}
		{answered}
		onrenew={() => (renewing = true)}
		onwithdraw={() => (withdrawing = true)}
		onamend={() => (amending = true)}
		onput={(to) => (open ? (putting = to) : void put(to ? { do: to } : { do: 'restore' }))}
	/>
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
				{#if held.identity}
					<div class="mb-5 border-l-[3px] border-brick bg-linen px-4 py-3">
						<h2 class="text-[16px]">{held.name} could not show who they are</h2>
						<p class="pb-2 text-[14px]">Whatever is decided is in the record.</p>
						<a class="button primary" href="/packets/{packet.id}/identity/{held.id}">Look at it</a>
					</div>
				{:else}<Held person={held.id} name={held.name} {answered} />{/if}
			{/if}
			{#if packet.session}<Session
					session={packet.session}
					{mayAct}
					zone={packet.zone}
					now={data.now}
					{answered}
				/>{/if}
			<OnPaper {packet} />
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
						<div class="pb-5">
							<SmallForm
								action="?/deadline"
								button="Move it"
								say={saidTo(answered, 'deadline')}
								ondone={() => (moving = false)}
								onleave={() => (moving = false)}
							>
								<Day
									label="New last day"
									name="day"
									required
									least={isoDay(packet.zone, data.now)}
									value={answered?.kept?.['day'] ?? isoDay(packet.zone, packet.deadline)}
								/>
							</SmallForm>
						</div>
					{:else}<p class="pb-5">
							<button class="button" onclick={() => (moving = true)}>Move the deadline…</button>
						</p>{/if}
				{/if}
			{/if}
			{#if !open}<Kept {packet} mayJudge={data.may.judge} now={data.now} />{/if}
			<FolderOf folder={packet.folder} folders={data.folders} {mayAct} {answered} />
			{#if facts.length > 0}
				<dl class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 pb-5 text-[14px]">
					{#each facts as [name, value] (name)}<dt class="text-quiet">{name}</dt>
						<dd class="wrap-anywhere">{value}</dd>{/each}
				</dl>
			{/if}
			<RecordOf record={packet.record} people={packet.people} zone={packet.zone} />
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
	bind:open={() => putting !== null, (now) => (putting = now ? putting : null)}
	form="put"
	title="Withdraw {packet.reference}, and put it into the {putting ?? 'bin'}"
	text="It is still out, so it is withdrawn first: it ends for everyone at once, and those who have had it are told, with your reason."
	button="Withdraw it and put it away"
	values={{ to: putting ?? 'bin' }}
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

<AmendDialog bind:open={amending} {packet} now={data.now} />
