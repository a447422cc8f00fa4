<script lang="ts">
	import { beforeNavigate, goto } from '$app/navigation';
	import type { Finding } from '$lib/core/packet';
	import { AmendStrip, Changes } from '$lib/ui/bench/amending';
	import { Adding } from '$lib/ui/bench/papers';
	import BenchHead from '$lib/ui/bench/BenchHead.svelte';
	import { CorrectingNote } from '$lib/ui/bench/sending';
	import { CorrectSheet } from '$lib/ui/bench/sending';
	import KeysDialog from '$lib/ui/bench/KeysDialog.svelte';
	import { LooksDialog } from '$lib/ui/bench/papers';
	import { Notes } from '$lib/ui/bench/papers';
	import { Bench } from '$lib/ui/bench/bench.svelte';
	import { shownSize } from '$lib/core/page';
	import { blockOf, pasteBlock, peopleHere, readBlock, type Block } from '$lib/core/plan';
	import { withRoles } from '$lib/core/plan';
	import { namedElsewhere } from '$lib/core/plan';
	import { removeFields } from '$lib/core/plan';
	import { FieldList } from '$lib/ui/bench/inspector';
	import { FitDialog } from '$lib/ui/bench/fitting';
	import { FindText } from '$lib/ui/bench/finding';
	import { Findings } from '$lib/ui/bench/finding';
	import { Inspector } from '$lib/ui/bench/inspector';
	import { pressKey } from '$lib/ui/bench/keys';
	import { Papers } from '$lib/ui/bench/papers';
	import { PasteDialog } from '$lib/ui/bench/pages';
	import { Rehearsal } from '$lib/ui/bench/rehearsal';
	import { PutInUse } from '$lib/ui/bench/sending';
	import { RepeatDialog } from '$lib/ui/bench/pages';
	import { Scanning } from '$lib/ui/bench/papers';
	import { SendSheet } from '$lib/ui/bench/sending';
	import { Scheduled } from '$lib/ui/bench/sending';
	import { Sheets } from '$lib/ui/bench/pages';
	import { Tray } from '$lib/ui/bench/pages';
	import { ownerName } from '$lib/ui/bench/weave';
	import { onMount, untrack } from 'svelte';

	let { data } = $props();
	// the Bench is the draft's memory from here on; what the server holds comes back by saving
	const bench = new Bench(
		untrack(() => data.draft),
		untrack(() => ({
			zone: data.organisation.zone,
			folders: data.folders,
			notaries: data.notaries,
			sender: { name: data.sender.name, email: data.sender.email, organisation: data.organisation.name }
		})),
		untrack(() => ({
			asTemplate: data.template !== null,
			base: data.draft.base,
			correcting: data.correcting,
			unlike: data.unlike
		}))
	);
	const zone = $derived(data.organisation.zone);

	/** how large a point is at 100 %, in px */
	const SCALE = 1.075;
	const ZOOMS = [25, 33, 50, 67, 75, 90, 100, 110, 125, 150, 200, 300, 400];
	/** as somebody has set it for this document, here; otherwise as large as the pane lets a whole page be, up to 100 % */
	let set = $state<number | null>(null);
	let pane = $state(0);
	const zoom = $derived(set ?? fitting(pane));
	let current = $state(0);
	let sheets = $state<Sheets>();
	const adding = new Adding(bench);
	const scanning = new Scanning(bench, adding);
	let sending = $state(false);
	let checking = $state(false);
	let helping = $state(false);
	let over = $state(false);
	let listing = $state(false);
	let finding = $state(false);
	let changing = $state(false);
	let repeating = $state(false);
	let rehearsing = $state(false);
	let pasted = $state.raw<{ block: Block; to: { paper: string; page: number } | null } | null>(null);

	const plan = $derived(bench.plan);
	const pages = $derived(plan.papers.reduce((sum, p) => sum + p.pages.length, 0));
	const findings = $derived(bench.findings);
	const grave = $derived(bench.grave);
	const found = $derived(Object.values(bench.free).reduce((sum, places) => sum + places.length, 0));

	onMount(() => {
		void bench.restore();
		return () => {
			bench.readings.close();
			scanning.close();
		};
	});
	$effect(() => {
		for (const paper of plan.papers) void untrack(() => scanning.watch(paper));
	});

	function fitting(width: number): number {
		const widest = Math.max(0, ...plan.papers.flatMap((p) => p.pages.map((page) => shownSize(page).width)));
		if (width === 0 || widest === 0) return 100;
		return ZOOMS.filter((z) => z <= 100 && (z / 100) * SCALE * widest <= width - 40).at(-1) ?? ZOOMS[0]!;
	}
	const ZOOM = `pellum-zoom ${bench.id}`;
	onMount(() => {
		const kept = Number(localStorage.getItem(ZOOM));
		if (ZOOMS.includes(kept)) set = kept;
	});
	function zoomBy(step: number) {
		const at = ZOOMS.findIndex((z) => z >= zoom);
		set = ZOOMS[Math.min(ZOOMS.length - 1, Math.max(0, at + step))]!;
		try {
			localStorage.setItem(ZOOM, String(set));
		} catch {
			// a browser that keeps nothing opens it at its width again
		}
	}

	/** Where to put right what a finding about a person says, where that is not their name. */
	const JUMPS: Record<string, string> = {
		'bad-address': '#person-email',
		'bad-phone': '#person-phone',
		'no-code': '#person-code',
		'no-host': '#person-deliver',
		'nobody-to-host': '#person-deliver'
	};

	function jump(finding: Finding) {
		const { place } = finding;
		checking = false;
		if (finding.code === 'looks-different') adding.looking = true;
		else if (place.what === 'field') {
			bench.chooseFields([place.id]);
			void sheets?.goToField(place.id);
		} else if (place.what === 'person') {
			bench.choosePerson(place.id);
			setTimeout(() => document.querySelector<HTMLInputElement>(JUMPS[finding.code] ?? '#person-name')?.focus(), 30);
		} else {
			bench.chooseFields([]);
			if (place.what === 'title')
				setTimeout(() => document.querySelector<HTMLInputElement>('#packet-title')?.focus(), 30);
		}
	}

	/** Fields are put away in the browser, so that they can be pasted in another packet as well. */
	const BLOCK = 'pellum-block';

	function copy(cut: boolean) {
		const block = blockOf(plan, bench.fieldIds);
		try {
			localStorage.setItem(BLOCK, JSON.stringify(block));
		} catch {
			adding.say('This browser keeps nothing, so nothing could be copied. The fields are as they were.', true);
			return;
		}
		if (!cut) return;
		bench.change(
			`cut ${block.fields.length} fields`,
			removeFields(
				plan,
				block.fields.map((f) => f.field.id)
			)
		);
		bench.chooseFields([]);
	}

	function kept(): string | null {
		try {
			return localStorage.getItem(BLOCK);
		} catch {
			return null;
		}
	}

	function paste() {
		const block = readBlock(kept());
		const to = sheets?.pageInView() ?? null;
		if (!block || block.fields.length === 0 || !to) return;
		const { known, unknown } = peopleHere(plan, block);
		if (unknown.length > 0) {
			pasted = { block, to };
			return;
		}
		// on the page they come from a copy stands a little aside
		const aside = block.fields.some((f) =>
			plan.fields.some((g) => g.id === f.field.id && g.paper === to.paper && g.page === to.page)
		);
		const done = pasteBlock(plan, block, to, known, { by: aside ? 12 : 0 });
		bench.change(`paste ${done.fields.length} fields`, done.plan);
		bench.chooseFields(done.fields);
	}

	/** Parties that the documents name and nobody here is; none where only one page is taken. */
	const named = $derived(namedElsewhere(Object.values(bench.free).flat(), plan.people));

	function takeFound(all: boolean) {
		adding.notes = [];
		if (!all || named.length === 0 || bench.isLocked('people')) return takeThem(all);
		const list = new Intl.ListFormat('en-GB').format(named.map((name) => `“${name}”`));
		adding.say(`The documents name ${list}, and nobody here is that.`, false, [
			{
				say: named.length === 1 ? 'Add them, and take all' : 'Add all of them, and take all',
				go: () => {
					bench.change(`make ${named.length === 1 ? 'a role' : `${named.length} roles`}`, withRoles(plan, named));
					bench.person ??= bench.actors[0]?.id ?? null;
					takeThem(true);
				}
			},
			{ say: 'Take all as it is', go: () => takeThem(true) }
		]);
	}

	function takeThem(all: boolean) {
		const { taken = 0, untold = 0 } = sheets?.takeFound(all) ?? {};
		const whose =
			untold === 0
				? ''
				: ` Of ${untold} the page doesn’t say whose ${untold === 1 ? 'it is' : 'they are'}: ${bench.person === null ? 'nobody has them yet' : `${ownerName(plan, bench.person)} has them now`}, and they are marked.`;
		const say = `Took ${taken} ${taken === 1 ? 'place' : 'places'}; Ctrl Z gives them back.${whose}`;
		adding.notes = [{ say: taken === 0 ? 'Nothing was found here.' : say, bad: false }];
		if (untold === 0) setTimeout(() => (adding.notes = adding.notes.filter((note) => note.say !== say)), 6000);
	}

	/** What is on the server is what a template is made of, so the last change is saved first. */
	async function keepAsTemplate(event: SubmitEvent) {
		if (!bench.unsaved) return;
		event.preventDefault();
		const form = event.currentTarget as HTMLFormElement;
		if (await bench.flush()) form.submit();
	}

	async function addTemplates() {
		if (await bench.flush()) await goto(`/templates/join?draft=${bench.id}&ids=`);
	}

	beforeNavigate(({ willUnload, cancel }) => {
		if (!bench.unsaved || sent) return;
		if (willUnload) cancel();
		else void bench.flush();
	});
	let sent = false;

	/** Leaves the packet as it was, or keeps the correction of one that has ended as a draft. */
	async function endCorrection(how: 'leave' | 'keep as draft') {
		const packet = bench.correcting!.packet;
		const done = await bench.ask<{ done: true }>('correction', { do: how });
		if ('wrong' in done) return adding.say(done.wrong, true);
		sent = true;
		if (how === 'leave') await goto(`/packets/${packet}`);
		else location.reload();
	}

	/** `packet`: null where it goes by itself later */
	function onsent(packet: string | null) {
		sent = true;
		if (packet === null) location.reload();
		else void goto(`/packets/${packet}`);
	}
</script>

<svelte:head><title>{plan.title || 'New packet'} · Bench · Pellum</title></svelte:head>
<svelte:window
	onkeydown={(event) => {
		const handled = pressKey(event, bench, {
			put: () => void sheets?.putByKey(),
			zoom: zoomBy,
			help: () => (helping = true),
			copy,
			paste,
			repeat: () => (repeating = true),
			find: () => (finding = true),
			list: () => (listing = !listing),
			nextFound: () => void sheets?.nextFound()
		});
		if (handled) event.preventDefault();
	}}
	onpaste={(event) => {
		const files = [...(event.clipboardData?.files ?? [])];
		if (files.length > 0) void adding.add(files);
	}}
	ondragover={(event) => {
		event.preventDefault();
		over = event.dataTransfer?.types.includes('Files') ?? false;
	}}
	ondragleave={(event) => (over = event.relatedTarget !== null && over)}
	ondrop={(event) => {
		event.preventDefault();
		over = false;
		void adding.add([...(event.dataTransfer?.files ?? [])]);
	}}
/>

<main
	id="main"
	class="relative grid h-dvh min-w-[1000px] {listing
		? 'grid-cols-[400px_1fr_288px] min-[1200px]:grid-cols-[460px_1fr_288px]'
		: 'grid-cols-[148px_1fr_288px]'} grid-rows-[96px_1fr_116px] min-[1200px]:grid-rows-[96px_1fr_88px] bg-sheet"
>
	<BenchHead
		{bench}
		template={data.template}
		{zone}
		onrehearse={() => (rehearsing = true)}
		ongo={() => (grave.length > 0 ? (checking = true) : (sending = true))}
	/>
	<div class="min-h-0 border-r border-hairline bg-linen">
		{#if listing}<FieldList {bench} ongo={(id) => void sheets?.goToField(id)} />
		{:else}<Papers {bench} {adding} ongo={(key) => sheets?.goTo(key)} />{/if}
	</div>
	<div class="flex min-h-0 min-w-0 flex-col bg-desk" bind:clientWidth={pane}>
		{#if bench.correcting}
			<CorrectingNote {bench} correcting={bench.correcting} {zone} onend={endCorrection} />
		{/if}
		{#if plan.amends}<AmendStrip {bench} onchange={() => (changing = true)} ongo={(key) => sheets?.goTo(key)} />{/if}
		<div class="relative min-h-0 flex-1">
			{#if plan.papers.length === 0}
				<div class="grid h-full place-items-center p-8 text-center">
					<div>
						<p class="font-serif text-xl">Drop the document here</p>
						<p class="pt-1 text-quiet">
							A PDF, a Word document or pictures, in the order they should stand. Drop, paste, or choose files at the
							left.
						</p>
					</div>
				</div>
			{:else}
				<Sheets {bench} scale={(zoom / 100) * SCALE} bind:current bind:this={sheets} />
				{#if found > 0}
					<div
						class="absolute top-3 left-3.5 flex items-center gap-1 rounded-sm border border-hairline bg-sheet px-2 py-0.5 text-[14px] whitespace-nowrap"
						role="group"
						aria-label="Found places"
					>
						<span class="pr-1"><b class="text-copper">{found}</b> found</span>
						{#if bench.showFound}
							<button class="plain" onclick={() => takeFound(false)}>Take this page’s</button>
							<button class="plain" onclick={() => takeFound(true)}>Take all</button>
						{/if}
						<button class="plain" onclick={() => (bench.showFound = !bench.showFound)}
							>{bench.showFound ? 'Hide' : 'Show'}</button
						>
					</div>
				{/if}
				{#if changing && plan.amends}<Changes
						{bench}
						ongo={(key) => sheets?.goTo(key)}
						onclose={() => (changing = false)}
					/>{/if}
				{#if finding}<FindText {bench} ongo={(key) => sheets?.goTo(key)} onclose={() => (finding = false)} />{/if}
			{/if}
			{#if over}<div
					class="absolute inset-2 grid place-items-center border-2 border-dashed border-thread bg-sheet/85 font-serif text-xl"
				>
					Let go to add it
				</div>{/if}
			<div class="absolute top-12 left-3.5 z-10 grid max-w-[520px] gap-2">
				<Scheduled draft={data.draft} {zone} />
				<Notes
					{bench}
					{adding}
					{scanning}
					onreload={() => {
						sent = true;
						location.reload();
					}}
				/>
			</div>
			<div class="pointer-events-none absolute z-10 right-3.5 bottom-3 left-3.5 flex flex-wrap items-end gap-2">
				{#if checking && findings.length > 0}
					<Findings {bench} onjump={jump} />
				{/if}
				{#if plan.papers.length > 0}
					<div
						class="pointer-events-auto flex items-center gap-1 rounded-sm whitespace-nowrap border border-hairline bg-sheet px-2 py-0.5"
					>
						<button class="plain" aria-label="Smaller" onclick={() => zoomBy(-1)}>−</button><span
							class="w-14 text-center text-quiet">{zoom} %</span
						><button class="plain" aria-label="Larger" onclick={() => zoomBy(1)}>+</button>
						<span class="pr-1 text-quiet">· page {current + 1} of {pages}</span>
						<button class="plain" aria-pressed={listing} onclick={() => (listing = !listing)}
							>{listing ? 'Papers' : 'List'}</button
						>
						<button class="plain" onclick={() => (finding = !finding)}>Find…</button>
					</div>
				{/if}
				<button
					class="pointer-events-auto ml-auto cursor-pointer rounded-sm border border-hairline bg-sheet px-3 py-1"
					aria-expanded={checking}
					onclick={() => (findings.length > 0 ? (checking = !checking) : (sending = true))}
				>
					{#if grave.length > 0}<b class="text-copper">{grave.length} {grave.length === 1 ? 'thing' : 'things'}</b>
						before this can {data.template ? 'be used' : 'go'}{:else}<b class="text-moss">Ready</b>
						{data.template ? 'to be used' : 'to go'}{findings.length > 0
							? `, ${findings.length} worth a look`
							: ''}{/if}
				</button>
			</div>
		</div>
	</div>
	<div class="min-h-0 border-l border-hairline">
		<Inspector {bench} onrepeat={() => (repeating = true)}>
			{#snippet more()}
				{#if !data.template && !bench.correcting}
					<form method="POST" action="/bench/{bench.id}/template" onsubmit={keepAsTemplate}>
						<button class="button" title="Makes a template of this; the draft stays as it is">Keep as template</button>
					</form>
					<button class="button" onclick={() => void addTemplates()}>Add templates…</button>
				{/if}
			{/snippet}
		</Inspector>
	</div>
	<div class="col-span-3 border-t border-hairline">
		<Tray {bench} ondrop={(kind, x, y) => sheets?.dropKind(kind, x, y)} />
	</div>
</main>

<FitDialog
	{bench}
	wanted={adding.fit}
	onclose={() => (adding.fit = null)}
	ondone={(fitted, name) => {
		adding.fit = null;
		bench.change(name, fitted);
	}}
/>
<LooksDialog {bench} bind:open={adding.looking} />
<RepeatDialog {bench} bind:open={repeating} />
<PasteDialog {bench} block={pasted?.block ?? null} to={pasted?.to ?? null} onclose={() => (pasted = null)} />
<Rehearsal
	of={bench}
	turn={(person) => `/bench/${bench.id}/rehearse?person=${encodeURIComponent(person)}`}
	bind:open={rehearsing}
/>
{#if data.template}
	<PutInUse
		{bench}
		bind:open={sending}
		ondone={(template) => {
			sent = true;
			void goto(`/templates?id=${template}`);
		}}
	/>
{:else if bench.correcting}
	<CorrectSheet
		{bench}
		correcting={bench.correcting}
		bind:open={sending}
		ondone={() => onsent(bench.correcting!.packet)}
	/>
{:else}<SendSheet {bench} {zone} holidays={data.holidays} bind:open={sending} {onsent} />{/if}
<KeysDialog bind:open={helping} />
