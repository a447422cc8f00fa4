<script lang="ts">
	import Toggles from '$lib/ui/parts/Toggles.svelte';
	import Choice from '$lib/ui/parts/Choice.svelte';
	import Menu from '$lib/ui/parts/Menu.svelte';
	import Seats from '$lib/ui/parts/Seats.svelte';
	import { goto } from '$app/navigation';
	import {
		asOne,
		clashesOf,
		movedGroup,
		nameOf,
		parted,
		personOf,
		proposed,
		roleName,
		type Joining
	} from '$lib/core/template';
	import { post } from '$lib/ui/post';
	import { untrack } from 'svelte';

	let { data } = $props();
	const parts = $derived(data.parts);
	let joining = $state.raw<Joining>(untrack(() => proposed(data.parts)));
	let past = $state.raw<Joining[]>([]);
	let busy = $state(false);
	let wrong = $state('');

	const clashes = $derived(parts.length > 1 ? clashesOf(parts, joining) : []);
	const open = $derived(clashes.filter((clash) => clash.open));
	const settled = $derived(clashes.filter((clash) => !clash.open && /^(key|fixed) /.test(clash.id)));
	const fields = $derived(parts.reduce((sum, part) => sum + part.plan.fields.length, 0));

	// another template was added: what was settled before is proposed anew
	$effect(() => {
		const now = data.parts;
		untrack(() => {
			joining = proposed(now);
			past = [];
		});
	});

	function set(next: Joining) {
		past = [...past, joining];
		joining = next;
	}
	function undo() {
		const last = past.at(-1);
		if (!last) return;
		joining = last;
		past = past.slice(0, -1);
	}
	const group = (id: string) => joining.people.find((g) => g.id === id)!;
	const duty = (id: string) => group(id).duty ?? personOf(parts, group(id).members[0]!).duty;
	const person = (id: string) => {
		const { members, taken } = group(id);
		const all = members.map((m) => personOf(parts, m));
		return all[taken ?? -1] ?? all.find((p) => p.email !== '') ?? all[0]!;
	};
	/** others with whom somebody could be one: from parts they are not in yet */
	const mates = (id: string) =>
		joining.people.filter(
			(g) => g.id !== id && !g.members.some((m) => group(id).members.some((n) => n.part === m.part))
		);

	async function join() {
		busy = true;
		wrong = '';
		const done = await post<{ draft: string }>(
			'/templates/joined',
			{ ...data.wanted, joining },
			'What you settled here is kept.'
		);
		busy = false;
		if ('draft' in done) await goto(`/bench/${done.draft}`);
		else wrong = done.wrong;
	}
	const list = (ids: string[]) => ids.map((id) => nameOf(parts, joining, id)).join(', ');
</script>

{#snippet head(i: number)}<span class="absolute top-1 left-3 text-quiet">{i + 1}</span>{/snippet}
{#snippet seat({ id }: { id: string }, i: number)}
	{@const stop = joining.stops[i] ?? []}
	<div
		class="flex min-h-11 cursor-grab flex-wrap items-center gap-x-3 rounded-sm border border-hairline bg-sheet px-3 py-1.5"
		role="group"
		aria-label={nameOf(parts, joining, id)}
	>
		<span class="min-w-40 flex-1"
			><b>{nameOf(parts, joining, id)}</b>
			{duty(id)}<br /><span class="text-[13px] text-quiet"
				>{[
					person(id).name,
					`in ${group(id)
						.members.map((m) => `“${parts[m.part]!.title}”`)
						.join(' and ')}`
				]
					.filter(Boolean)
					.join(', ')}</span
			></span
		>
		{#if mates(id).length > 0}
			<Choice
				label="{nameOf(parts, joining, id)} is the same as"
				unseen
				narrow
				empty="Same as…"
				value=""
				options={mates(id).map((mate) => [mate.id, nameOf(parts, joining, mate.id)])}
				onchoose={(mate) => set(asOne(joining, id, mate))}
			/>
		{/if}
		<Menu
			label="Move"
			hint="Move {nameOf(parts, joining, id)}"
			entries={[
				...(i > 0 || stop.length > 1
					? [{ name: 'Earlier', run: () => set(movedGroup(joining, id, stop.length === 1 ? i - 1 : i, 'before')) }]
					: []),
				...(i < joining.stops.length - 1 || stop.length > 1
					? [{ name: 'Later', run: () => set(movedGroup(joining, id, stop.length === 1 ? i + 2 : i + 1, 'before')) }]
					: []),
				...(i > 0 ? [{ name: 'Beside the one before', run: () => set(movedGroup(joining, id, i - 1, 'beside')) }] : []),
				...(group(id).members.length > 1 ? [{ name: 'Make it two people', run: () => set(parted(joining, id)) }] : [])
			]}
		/>
	</div>
{/snippet}

<svelte:head><title>Join · Pellum</title></svelte:head>
<svelte:window
	onkeydown={(event) => {
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
			event.preventDefault();
			undo();
		}
	}}
/>
{#snippet another(label: string)}
	{#if data.others.length > 0}
		<form method="GET" class="flex max-w-xl items-end gap-2 pt-6">
			{#if data.wanted.draft}<input type="hidden" name="draft" value={data.wanted.draft} />{/if}
			<div class="flex-1">
				<Choice
					{label}
					name="ids"
					value={[...data.wanted.templates, data.others[0]!.id].join(',')}
					options={data.others.map((other) => [[...data.wanted.templates, other.id].join(','), other.title])}
				/>
			</div>
			<button class="button">Add</button>
		</form>
	{/if}
{/snippet}

<main id="main" class="px-6 py-5">
	<p class="text-[14px] text-quiet">
		<a class="text-thread underline" href="/templates">Templates</a> · one packet of several
	</p>
	<div class="flex flex-wrap items-center gap-3 pb-4">
		<h1 class="text-[19px]">Join {parts.map((part) => `“${part.title}”`).join(' and ')}</h1>
		<button class="button ml-auto" disabled={past.length === 0} onclick={undo}>Undo</button>
		<button class="button primary" disabled={busy || open.length > 0 || parts.length < 2} onclick={join}
			>{busy ? 'Joining…' : 'Join and go to the Bench'}</button
		>
	</div>
	<p class="wrong pb-2 empty:hidden" role="alert">{wrong}</p>
	{#if data.why}
		<p role="alert" class="max-w-xl rounded-sm border border-copper p-3">{data.why}</p>
		{@render another('Template')}
	{:else}
		<div class="flex flex-wrap items-start gap-6">
			{#each parts as part, n (n)}
				<section class="w-56 shrink-0" aria-labelledby="part-{n}">
					<h2 id="part-{n}" class="border-b border-ink pb-1 text-[15px]">{part.title}</h2>
					<ol class="grid gap-2 pt-2">
						{#each part.plan.stops as stop, i (stop.id)}
							<li class="flex gap-2">
								<span class="w-5 text-quiet">{i + 1}</span>
								<span>
									{#each part.plan.people.filter((p) => stop.people.includes(p.id)) as one (one.id)}
										<span class="block font-semibold">{roleName(one)}</span>
										<span class="block text-[13px] text-quiet"
											>{one.duty}{one.role && one.name ? `, ${one.name}` : ''}</span
										>
									{/each}
								</span>
							</li>
						{/each}
					</ol>
				</section>
			{/each}
			<section class="min-w-[340px] flex-1 rounded-sm border border-hairline bg-linen p-4" aria-labelledby="whole">
				<h2 id="whole" class="pb-1 text-[15px]">The packet</h2>
				<p class="pb-2 text-[14px] text-quiet">
					{parts.reduce((sum, part) => sum + part.plan.papers.length, 0)} documents, {fields} fields. Drag somebody to another
					stop, onto others to stand beside them.
				</p>
				<Seats
					label="Stops of the packet"
					keys
					stops={joining.stops.map((stop, i) => ({
						id: stop.join(' '),
						items: stop.map((id) => ({ id })),
						name: `Stop ${i + 1}: ${list(stop)}`
					}))}
					name={({ id }) => nameOf(parts, joining, id)}
					stopLook="relative border-l-2 border-thread pl-9"
					seatsLook="grid gap-1.5"
					{head}
					{seat}
					onput={(id, to, how) => set(movedGroup(joining, id, to, how))}
				/>
			</section>
			<section class="w-full min-[1100px]:w-[330px]" aria-labelledby="clashes">
				<h2 id="clashes" class="pb-1 text-[15px]">
					{open.length === 0 ? 'Nothing left to settle' : `${open.length} to settle`}
				</h2>
				<ul class="grid gap-3" aria-live="polite">
					{#each [...open, ...settled] as clash (clash.id)}
						<li class="border-l-2 pl-3 {clash.open ? 'border-copper' : 'border-hairline'}">
							<p>{clash.say}</p>
							<div class="flex flex-wrap gap-2 pt-1">
								{#if clash.id.startsWith('key ')}
									{@const apart = joining.keys[clash.id.slice(4)] === 'apart'}
									<Toggles
										label={clash.say}
										value={clash.ways.find((way) => way.apart === apart)?.say ?? ''}
										options={clash.ways.map(({ say }) => [say, say])}
										onchoose={(say) => set(clash.ways.find((way) => way.say === say)!.change(joining))}
									/>
								{:else}
									{#each clash.ways as way (way.say)}<button class="button" onclick={() => set(way.change(joining))}
											>{way.say}</button
										>{/each}
								{/if}
							</div>
						</li>
					{/each}
				</ul>
				{@render another('One more')}
			</section>
		</div>
	{/if}
</main>
