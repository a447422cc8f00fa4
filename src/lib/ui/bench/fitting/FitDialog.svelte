<script lang="ts">
	import DialogBox from '../../parts/DialogBox.svelte';
	import { Dialog } from '../../parts/dialog';
	import { tick } from 'svelte';
	import { kindOf } from '../../../core/field';
	import { personIn, type Paper, type Plan } from '../../../core/packet';
	import { fromShown, keepOnPage, toShown, type Fitting } from '../../../core/page';
	import { roleName } from '../../../core/template';
	import PagePicture from '../../pages/PagePicture.svelte';
	import type { Bench } from '../bench.svelte';
	import { doubtsSaid, exchanged, laidOut, type Laid } from '../../../core/plan';

	/**
	 * Fields laid over another version of their document: old page and new page side by side, and every field that wants a
	 * look in turn. Nothing is laid down before each of them has been looked at.
	 */
	let {
		bench,
		wanted,
		onclose,
		ondone
	}: {
		bench: Bench;
		/** the plan the fields are of, which of its documents, and its new version */
		wanted: { plan: Plan; paper: string; next: Omit<Paper, 'id'> } | null;
		onclose: () => void;
		ondone: (plan: Plan, name: string) => void;
	} = $props();

	let laid = $state<Laid[]>([]);
	let fitting = $state.raw<Fitting | null>(null);
	let say = $state('');
	let at = $state(0);
	let open = $derived(wanted !== null);
	const old = $derived(wanted?.plan.papers.find((p) => p.id === wanted.paper));
	const next = $derived(wanted?.next);
	const now = $derived(laid[at]);
	const left = $derived(laid.filter((one) => !one.seen).length);
	const SCALE = 0.78;

	$effect(() => {
		if (!wanted || !old) return;
		fitting = null;
		laid = [];
		say = '';
		at = 0;
		const fields = wanted.plan.fields.filter((f) => f.paper === wanted.paper);
		const plain = fields.map(({ id, page, rect, pin }) => ({
			id,
			page,
			rect: { ...rect },
			...(pin && { pin: { ...pin } })
		}));
		bench.readings.fit($state.snapshot(old), $state.snapshot(wanted.next), plain).then(
			(done) => {
				fitting = done;
				laid = laidOut(fields, done.fields);
				go(0);
			},
			() => {
				say = `The old document, “${old.name}”, can’t be read any more, so its fields can’t follow it. Everything is as it was.`;
			}
		);
	});

	/** The one that was looked at is settled; the next that is not comes up. */
	function settle(i: number) {
		laid[i]!.seen = true;
		const open = [...laid.slice(i + 1), ...laid.slice(0, i)].find((one) => !one.seen);
		go(open ? laid.indexOf(open) : i);
	}
	function go(i: number) {
		at = i;
		void tick().then(() => {
			document.querySelector<HTMLElement>(`[data-fit="${i}"]`)?.focus();
			document.querySelector(`[data-new-page="${laid[i]?.place?.page ?? 0}"]`)?.scrollIntoView({ block: 'nearest' });
			for (const box of document.querySelectorAll('[data-fit-box="at"]')) box.scrollIntoView({ block: 'center' });
		});
	}
	/** Puts the field where the new page was pressed. */
	function put(event: MouseEvent, page: number) {
		if (!now || !next) return;
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		const size = next.pages[page]!;
		const { width, height } = toShown(old!.pages[now.field.page]!, now.field.rect);
		const rect = keepOnPage(size, {
			width,
			height,
			left: (event.clientX - box.left) / SCALE - width / 2,
			top: (event.clientY - box.top) / SCALE - height / 2
		});
		laid[at] = { ...now, place: { page, rect: fromShown(size, rect) }, seen: true };
	}
	function nudge(across: number, down: number) {
		if (!now?.place || !next) return;
		const size = next.pages[now.place.page]!;
		const rect = toShown(size, now.place.rect);
		const moved = keepOnPage(size, { ...rect, left: rect.left + across, top: rect.top + down });
		laid[at] = { ...now, place: { page: now.place.page, rect: fromShown(size, moved) } };
	}
	function key(event: KeyboardEvent, i: number) {
		const step = event.shiftKey ? 10 : 1;
		if (event.key === 'ArrowDown' && !event.altKey) go(Math.min(laid.length - 1, i + 1));
		else if (event.key === 'ArrowUp' && !event.altKey) go(Math.max(0, i - 1));
		else if (event.altKey && event.key === 'ArrowDown') nudge(0, step);
		else if (event.altKey && event.key === 'ArrowUp') nudge(0, -step);
		else if (event.altKey && event.key === 'ArrowLeft') nudge(-step, 0);
		else if (event.altKey && event.key === 'ArrowRight') nudge(step, 0);
		else if (event.key === 'Enter') settle(i);
		else if (event.key === 'Delete') laid[i] = { ...laid[i]!, place: null, seen: true };
		else return;
		event.preventDefault();
	}
	function lay() {
		if (!wanted) return;
		ondone(
			exchanged($state.snapshot(wanted.plan) as Plan, wanted.paper, wanted.next, $state.snapshot(laid) as Laid[]),
			`fit ${laid.length} fields`
		);
	}
	const who = (one: Laid) => {
		const person = wanted && personIn(wanted.plan, one.field.person ?? '');
		return person ? person.name || roleName(person) : one.field.person === 'sender' ? 'me' : '';
	};
	const percent = (share: number) => `${Math.round(share * 100)} %`;
</script>

{#snippet page(paper: Omit<Paper, 'id'>, number: number, what: 'old' | 'new')}
	{@const size = paper.pages[number]!}
	<div class="relative mx-auto w-fit">
		<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions (Alt and arrows move it by keyboard) -->
		<div class={what === 'new' ? 'cursor-crosshair' : ''} onclick={(e) => what === 'new' && put(e, number)}>
			<PagePicture
				url="/papers/{paper.digest}"
				{number}
				page={size}
				scale={SCALE}
				label="{what === 'old' ? 'Old' : 'New'} version, page {number + 1} of {paper.pages.length}"
			/>
		</div>
		{#each (what === 'old' ? fitting?.gone : fitting?.added)?.filter((one) => one.page === number) ?? [] as { rect }, i (i)}
			<span
				class="pointer-events-none absolute mix-blend-multiply {what === 'old' ? 'bg-[#a3392b2e]' : 'bg-[#4b7a3633]'}"
				style="left:{rect.left * SCALE}px;top:{rect.top * SCALE}px;width:{rect.width * SCALE}px;height:{rect.height *
					SCALE}px"
			></span>
		{/each}
		{#each laid as one, i (one.field.id)}
			{@const place = what === 'old' ? { page: one.field.page, rect: one.field.rect } : one.place}
			{#if place?.page === number}
				{@const box = toShown(size, place.rect)}
				<span
					data-fit-box={i === at ? 'at' : undefined}
					class="pointer-events-none absolute {i === at
						? 'border-2 border-[#14525c] bg-[#14525c24]'
						: one.seen
							? 'border border-[#14525c80]'
							: 'border border-dashed border-[#a85a1f]'}"
					style="left:{box.left * SCALE}px;top:{box.top * SCALE}px;width:{box.width * SCALE}px;height:{box.height *
						SCALE}px"
				></span>
			{/if}
		{/each}
	</div>
{/snippet}

<DialogBox
	whole
	{open}
	onOpenChange={(is) => {
		if (!is) onclose();
	}}
>
	<div class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hairline px-5 py-3">
		<Dialog.Title class="font-serif text-lg font-semibold">Fit to “{next?.name}”</Dialog.Title>
		<Dialog.Description class="text-[14px] text-quiet">
			{#if fitting}{laid.length - laid.filter((one) => one.doubts.length > 0 || one.moved).length} of {laid.length} fields
				placed surely; {percent(fitting.alike)} of the words are still there.{:else if say === ''}Comparing the two
				versions…{/if}
		</Dialog.Description>
		<span class="ml-auto" role="status">{fitting ? (left > 0 ? `${left} to look at` : 'All looked at') : ''}</span>
		<button class="button primary" disabled={!fitting || left > 0} onclick={lay}>Lay the fields down</button>
		<Dialog.Close class="button">Leave it</Dialog.Close>
	</div>
	{#if say}<p class="p-6" role="alert">{say}</p>{/if}
	{#if fitting && old && next}
		<div class="grid min-h-0 flex-1 grid-cols-[300px_1fr_1fr]">
			<section aria-label="Fields" class="min-h-0 overflow-y-auto border-r border-hairline bg-linen">
				<ul>
					{#each laid as one, i (one.field.id)}
						<li class="border-b border-hairline">
							<button
								class="block w-full cursor-pointer px-4 py-2 text-left {i === at ? 'bg-wash' : ''}"
								data-fit={i}
								aria-current={i === at}
								onclick={() => go(i)}
								onkeydown={(event) => key(event, i)}
							>
								<span class="flex items-baseline gap-2"
									><b class="flex-1">{one.field.label || kindOf(one.field.kind).name}</b><span
										class="text-[13px] {one.seen ? 'text-quiet' : 'font-semibold'}"
										>{one.place === null
											? one.seen
												? 'left out'
												: 'no place'
											: one.seen
												? 'right'
												: percent(one.sure)}</span
									></span
								>
								<span class="block text-[13px] text-quiet"
									>{kindOf(one.field.kind).name}{who(one) && `, ${who(one)}`}</span
								>
								{#if doubtsSaid(one)}<span class="block text-[13px]">{doubtsSaid(one)}</span>{/if}
							</button>
							{#if i === at}
								<p class="flex flex-wrap gap-2 bg-wash px-4 pb-2">
									{#if !one.seen}<button class="button" onclick={() => settle(i)}
											>{one.place ? 'It is right' : 'Leave it out'}</button
										>{/if}
									{#if one.place && (one.doubts.length > 0 || one.moved)}<button
											class="button"
											onclick={() => (laid[i] = { ...one, place: null, seen: true })}>Leave it out</button
										>{/if}
								</p>
							{/if}
						</li>
					{/each}
				</ul>
				<p class="px-4 py-3 text-[13px] text-quiet">
					Enter says that it is right and goes on. Press on the new page to put the field there; Alt with the arrows
					moves it. Delete leaves it out.
				</p>
			</section>
			<section aria-label="Old version" class="min-h-0 overflow-y-auto border-r border-hairline bg-desk py-3">
				<p class="pb-2 text-center text-[14px] text-quiet">
					Old: page {(now?.field.page ?? 0) + 1} of {old.pages.length}, words that are gone in red
				</p>
				{@render page(old, now?.field.page ?? 0, 'old')}
			</section>
			<!-- svelte-ignore a11y_no_noninteractive_tabindex (what scrolls must be reached by keyboard) -->
			<section aria-label="New version" class="min-h-0 overflow-y-auto bg-desk py-3" tabindex="0">
				{#each next.pages as _, number (number)}
					<p class="pb-2 text-center text-[14px] text-quiet">
						New: page {number + 1} of {next.pages.length}, new words in green
					</p>
					<div class="pb-4" data-new-page={number}>{@render page(next, number, 'new')}</div>
				{/each}
			</section>
		</div>
	{/if}
</DialogBox>
