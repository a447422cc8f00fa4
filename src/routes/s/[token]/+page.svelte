<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import type { Paper } from '$lib/core/packet';
	import type ShowIdentity from '$lib/ui/signing/identity/ShowIdentity.svelte';
	import type OnPaper from '$lib/ui/signing/paper/OnPaper.svelte';
	import type TurnRoom from '$lib/ui/signing/TurnRoom.svelte';
	import CodeView from '$lib/ui/signing/CodeView.svelte';
	import FirstView from '$lib/ui/signing/FirstView.svelte';
	import { send } from '$lib/ui/signing/keeper';
	import SigningHead from '$lib/ui/signing/SigningHead.svelte';
	import { giveWords } from '$lib/ui/signing/words';
	import { tell, tellHeight } from '$lib/ui/visit/frame';
	import { ENGLISH, wordsIn, type WordKey } from '$lib/words/words';

	let { data } = $props();
	const view = $derived(data.view);
	const words = $derived(data.texts ? wordsIn(data.language, data.texts) : ENGLISH);
	giveWords(() => words);
	const token = $derived(page.params.token!);
	const base = $derived(`/s/${token}`);
	/** what the turn is done with: fetched while the first view is read */
	let Room = $state.raw<typeof TurnRoom | null>(null);
	let room = $state<TurnRoom>();
	let Show = $state.raw<typeof ShowIdentity | null>(null);
	let InInk = $state.raw<typeof OnPaper | null>(null);
	/** what they chose last; before that, the paper where they have it */
	let onPaper = $state<boolean | null>(null);
	const inInk = $derived(view.state === 'turn' && view.paper !== null && (onPaper ?? view.paper.is !== null));
	$effect(() => {
		if (inInk) void import('$lib/ui/signing/paper/OnPaper.svelte').then((one) => (InInk = one.default));
	});
	$effect(() => {
		if (view.state === 'identity')
			void import('$lib/ui/signing/identity/ShowIdentity.svelte').then((one) => (Show = one.default));
		if (view.state === 'turn') void import('$lib/ui/signing/TurnRoom.svelte').then((one) => (Room = one.default));
	});

	let busy = $state(false);
	let wrong = $state('');
	let zoom = $state(1);
	let later = $state(false);
	let asText = $state(false);

	const route = $derived('route' in view ? view.route : []);
	const before = $derived(route.filter((p) => !p.me && p.state === 'done').map((p) => p.name));
	const next = $derived.by(() => {
		const me = route.find((p) => p.me);
		return route
			.filter((p) => me && !p.me && p.duty !== 'gets a copy' && p.state !== 'done' && p.stop >= me.stop)
			.map((p) => words(`duty.${p.duty}` as WordKey, { name: p.name }));
	});
	const after = $derived(next.length === 0 ? words('after.none') : words('after.some', { names: words.clauses(next) }));
	const paperUrl = (paper: Paper) => `${base}/papers/${paper.id}`;
	const turn = $derived(view.state === 'turn' && view.consented && !inInk);
	const title = $derived(
		view.me.duty === 'gets a copy'
			? view.title
			: words(`mail.subject.${view.me.duty}` as WordKey, { title: view.title })
	);
	/** a guest's host left their own link in this tab */
	const hostLink = $derived(
		view.state === 'finished' && view.host && typeof sessionStorage !== 'undefined'
			? sessionStorage.getItem('pellum-host')
			: null
	);

	// where it stands in a frame of an office's website, that page hears how high it is and that somebody is done
	$effect(tellHeight);
	$effect(() => {
		if (view.state === 'finished') tell('finished');
	});

	const refresh = () => invalidateAll();

	async function goOn() {
		busy = true;
		const kept = await send(`${base}/consent`, 'POST', {}, words);
		busy = false;
		wrong = kept.ok ? '' : kept.say;
		if (!kept.ok) return;
		await refresh();
	}

	async function speak(language: string) {
		await room?.keep();
		const kept = await send(`${base}/language`, 'POST', { language }, words);
		if (kept.ok) await invalidateAll();
	}

	// the copies are made shortly after the last one has finished; a stop may open while somebody waits
	$effect(() => {
		const making = view.state === 'finished' && view.complete && view.copies.length === 0;
		const shut = view.state === 'held' || view.state === 'waiting' || view.state === 'correcting';
		const looking =
			(view.state === 'identity' && view.looking) || (view.state === 'turn' && view.paper?.is === 'looking');
		if (!making && !shut && !looking) return;
		const timer = setInterval(() => void refresh(), making || looking ? 2000 : 15_000);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>{title}</title></svelte:head>

<div lang={data.language} dir={data.direction} class="signing">
	<SigningHead
		{view}
		organisation={data.organisation}
		language={data.language}
		languages={data.languages}
		{turn}
		bind:asText
		bind:zoom
		downloads={view.state === 'turn'
			? [...view.papers, ...view.attachments].map(({ id, name }) => ({ id, name, href: `${base}/papers/${id}?name=1` }))
			: []}
		may={view.state === 'turn'
			? { ...view.may, paper: view.paper !== null }
			: { handOver: false, wording: false, paper: false }}
		onpaper={async () => {
			await room?.keep();
			onPaper = true;
		}}
		onlanguage={speak}
		onsave={async () => (later = (await room?.keep()) ?? false)}
		onask={(what) => room?.ask(what)}
	/>

	{#if view.notary && (view.state === 'finished' || view.state === 'turn')}
		{#await import('$lib/ui/signing/BeforeNotary.svelte') then { default: BeforeNotary }}<BeforeNotary
				notary={view.notary}
				me={view.me.id}
				onturn={refresh}
				room={view.state === 'turn' && !view.consented ? null : `${base}/room`}
			/>{/await}
	{/if}
	{#if view.state === 'code'}
		<CodeView {base} by={view.by} to={view.to} minutes={view.minutes} onright={refresh} />
	{:else if view.state === 'identity'}
		{#if Show}<Show {view} {base} locale={data.language} onchange={refresh} />
		{:else}<main id="main" class="px-5 py-12" aria-busy="true">{words('keep.moment')}</main>{/if}
	{:else if view.state === 'turn' && inInk}
		{#if InInk}<InInk
				paper={view.paper!}
				{base}
				title={view.title}
				onchange={refresh}
				onhere={() => (onPaper = false)}
			/>
		{:else}<main id="main" class="px-5 py-12" aria-busy="true">{words('keep.moment')}</main>{/if}
	{:else if view.state === 'turn' && !view.consented}
		<FirstView
			{view}
			{before}
			{after}
			consent={data.consent}
			{busy}
			{wrong}
			ongo={goOn}
			onpaper={view.paper ? () => (onPaper = true) : undefined}
		/>
	{:else if view.state === 'turn'}
		{#if Room}
			<!-- another plan is another turn: what was entered comes back from the server -->
			{#key view.version}<Room
					bind:this={room}
					{view}
					{base}
					{after}
					{zoom}
					{later}
					{asText}
					onrefresh={refresh}
				/>{/key}
		{:else}<main id="main" class="px-5 py-12" aria-busy="true">{words('keep.moment')}</main>{/if}
	{:else if view.state === 'finished' || view.state === 'so far'}
		{#await import('$lib/ui/signing/FinishedView.svelte')}
			<main id="main" class="px-5 py-12" aria-busy="true">{words('keep.moment')}</main>
		{:then { default: FinishedView }}
			<FinishedView {view} {base} {next} {paperUrl} {hostLink} />
		{/await}
	{:else}
		<main id="main" class="mx-auto max-w-2xl px-5 py-12 text-[17px] leading-7">
			<h2 class="pb-2 text-xl">
				{view.state === 'ended'
					? words(view.stopped ? 'end.title' : 'end.nothing')
					: words(({ waiting: 'wait.title', held: 'held.title', correcting: 'correcting.title' } as const)[view.state])}
			</h2>
			<p>
				{view.state === 'ended'
					? view.why
					: view.state === 'waiting'
						? words('wait.text')
						: words(view.state === 'held' ? 'held.text' : 'correcting.text')}
			</p>
		</main>
	{/if}
</div>
