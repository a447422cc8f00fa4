<script lang="ts">
	import { tick } from 'svelte';
	import { kindOf } from '../../../core/field';
	import type { Field, KindName, Paper } from '../../../core/packet';
	import {
		ALL_SIDES,
		keepOnPage,
		meets,
		shownSize,
		snap,
		snapTargets,
		toShown,
		type FoundPlace,
		type ShownRect,
		type SnapTargets
	} from '../../../core/page';
	import Covers from '../../pages/Covers.svelte';
	import PagePicture from '../../pages/PagePicture.svelte';
	import type { Bench } from '../bench.svelte';
	import { Banding } from './banding.svelte';
	import { Dragging, REACH } from './dragging.svelte';
	import { changeFields, placeField, putAt, shownAt, withGroups } from '../../../core/plan';
	import { isFixed } from '../correcting';
	import FieldBox from './FieldBox.svelte';
	import { likelyOwner, takePlaces } from '../../../core/plan';
	import { sheetLayout, visibleSheets, type Sheet } from './layout';
	import { landmarksShown, wordsIn } from '../fitting';
	import { ownerName, weaveOf } from '../weave';

	/** The pages, one under the other, with their fields. Only those near the view are drawn. */
	let { bench, scale, current = $bindable(0) }: { bench: Bench; scale: number; current?: number } = $props();

	const GAP = 16;

	const plan = $derived(bench.plan);
	const layout = $derived(sheetLayout(plan.papers, scale, GAP));
	const sheets = $derived(layout.sheets);
	const byPage = $derived.by(() => {
		const all: Record<string, Field[]> = {};
		for (const field of plan.fields) (all[`${field.paper}-${field.page}`] ??= []).push(field);
		return all;
	});
	let scroller: HTMLDivElement;
	let top = $state(0);
	let height = $state(800);
	const drawnSheets = $derived(visibleSheets(layout, top, height));

	const dragging = new Dragging({
		bench: () => bench,
		scale: () => scale,
		layout: () => layout,
		scrolled: () => scroller.scrollTop,
		sheetAt,
		targetsOn
	});
	const drag = $derived(dragging.now);
	/** the words by which the chosen field is pinned, by page, while its pin is looked at */
	const landmarks = $derived(bench.showPins ? landmarksShown(bench) : {});
	const banding = new Banding(() => scale, choseBand);
	const band = $derived(banding.now);

	$effect(() => {
		for (const paper of plan.papers) void bench.read(paper);
	});

	const sheetOf = (field: Field): Sheet => sheets.find((s) => s.paper.id === field.paper && s.number === field.page)!;

	function targetsOn(sheet: Sheet, without: string[]): SnapTargets {
		const others = (byPage[sheet.key] ?? []).filter((f) => !without.includes(f.id)).map((f) => shownAt(plan, f));
		return snapTargets(bench.readings.page(sheet.paper, sheet.number), others);
	}

	/** ids of the fields of a sheet that a rectangle meets */
	function fieldsIn(sheet: Sheet, rect: ShownRect): string[] {
		return (byPage[sheet.key] ?? []).filter((f) => meets(rect, shownAt(plan, f))).map((f) => f.id);
	}

	/** What a band chooses: fields, or while a phrase is being marked, its words. */
	function choseBand(sheet: Sheet, rect: ShownRect): string[] {
		const page = bench.marking && bench.readings.page(sheet.paper, sheet.number);
		if (!page) return fieldsIn(sheet, rect);
		bench.marked(wordsIn(page, rect), sheet.paper.id, sheet.number, rect);
		return [];
	}

	function sheetAt(x: number, y: number): Sheet | undefined {
		return sheets.find((s) => {
			const box = scroller.querySelector(`[data-sheet="${s.key}"]`)?.getBoundingClientRect();
			return box && x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
		});
	}

	function press(event: MouseEvent, sheet: Sheet) {
		if (!bench.placing) return;
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		put(sheet, bench.placing, { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale });
	}

	/** Places a kind; on a found blank it takes its place, size and label, elsewhere a printed line right there draws it to itself. */
	function put(sheet: Sheet, kind: KindName, middle: { x: number; y: number }) {
		const blank = freeOn(sheet.paper, sheet.number).find(({ rect: { left, top, width, height } }) => {
			const [x, y] = [middle.x - left, middle.y - top];
			return x >= 0 && x <= width && y >= 0 && y <= height;
		});
		if (blank) return take(sheet, [asKind(blank, kind)], 'the chosen');
		const before = plan.fields.find((f) => f.id === bench.fieldIds[0]);
		const placed = placeField(plan, kind, bench.person, sheet.paper.id, sheet.number, middle, before);
		const field = placed.plan.fields.find((f) => f.id === placed.field)!;
		const near = snap(toShown(sheet.page, field.rect), targetsOn(sheet, []), REACH / scale);
		const now = changeFields(placed.plan, [field.id], (f) => putAt(placed.plan, f, near.rect));
		bench.change(`place ${kindOf(kind).name}`, now);
		bench.chooseFields([placed.field]);
	}

	/** Lets go of a kind dragged from the tray; false where there is no page under it. */
	export function dropKind(kind: KindName, x: number, y: number): boolean {
		const sheet = sheetAt(x, y);
		if (!sheet) return false;
		const box = scroller.querySelector(`[data-sheet="${sheet.key}"]`)!.getBoundingClientRect();
		put(sheet, kind, { x: (x - box.left) / scale, y: (y - box.top) / scale });
		return true;
	}

	function choose(id: string, add: boolean) {
		const now = bench.fieldIds;
		const group = withGroups(plan, [id]);
		if (!add) return bench.chooseFields(group);
		bench.chooseFields(now.includes(id) ? now.filter((f) => !group.includes(f)) : [...now, ...group]);
	}

	/** Places to take on a document, or on one page of it. */
	function freeOn(paper: Paper, page?: number) {
		const places = bench.free[paper.id] ?? [];
		return page === undefined ? places : places.filter((p) => p.page === page);
	}

	function take(sheet: Sheet, places: FoundPlace[], whose: 'as it says' | 'the chosen' = 'as it says') {
		const taken = takePlaces(plan, sheet.paper.id, places, bench.foundOn(sheet.paper), bench.person, whose);
		bench.change(places.length === 1 ? 'take a found place' : `take ${places.length} found places`, taken.plan);
		bench.chooseFields(taken.fields);
	}

	/** A found place taken for another kind than the one it looks like. */
	function asKind(found: FoundPlace, kind: KindName): FoundPlace {
		return found.kind === kind
			? found
			: { ...found, kind, settings: kindOf(kind).grouped ? { value: 'option_1' } : {} };
	}

	/** Takes what is found: on the page in view, or on all pages. Gives how many, and of how many the page doesn't say whose. */
	export function takeFound(all: boolean): { taken: number; untold: number } {
		const sheet = sheets[current];
		if (!sheet) return { taken: 0, untold: 0 };
		let now = plan;
		const added: string[] = [];
		const untold: string[] = [];
		for (const paper of all ? plan.papers : [sheet.paper]) {
			const places = freeOn(paper).filter((p) => all || p.page === sheet.number);
			const taken = takePlaces(now, paper.id, places, bench.foundOn(paper), bench.person);
			now = taken.plan;
			added.push(...taken.fields);
			untold.push(...taken.fields.filter((_, i) => likelyOwner(places[i]!, plan.people) === null));
		}
		if (added.length > 0) bench.change(`take ${added.length} found places`, now);
		bench.untold = { ...bench.untold, ...Object.fromEntries(untold.map((id) => [id, bench.person])) };
		bench.chooseFields(untold.length > 0 ? untold : added);
		return { taken: added.length, untold: untold.length };
	}

	/** Puts the focus on the next found place, from the page in view on; Enter there takes it. */
	export async function nextFound() {
		const order = [...sheets.slice(current), ...sheets.slice(0, current)];
		const focused = (document.activeElement as HTMLElement | null)?.dataset['found'];
		const all = order.flatMap((s) => freeOn(s.paper, s.number).map((p) => ({ sheet: s, name: foundName(s, p) })));
		const next = all[(all.findIndex((one) => one.name === focused) + 1) % Math.max(1, all.length)];
		if (!next) return;
		goToSheet(next.sheet.key, true);
		await tick();
		const element = scroller.querySelector<HTMLElement>(`[data-found="${CSS.escape(next.name)}"]`);
		element?.scrollIntoView({ block: 'nearest' });
		element?.focus({ preventScroll: true });
	}

	const whoseSaid = (owner: string | null) =>
		owner === null
			? `the page doesn’t say whose; for ${ownerName(plan, bench.person)} if taken`
			: `for ${ownerName(plan, owner)}, as the page says`;
	const foundName = (sheet: Sheet, place: FoundPlace) =>
		`${sheet.key} ${Math.round(place.rect.left)} ${Math.round(place.rect.top)}`;

	/** Places the kind in hand by keyboard: in the middle of what is seen, lower for each one that is there already. */
	export async function putByKey() {
		const sheet = sheets[current];
		if (!sheet || !bench.placing) return;
		const size = shownSize(sheet.page);
		const seen = top + height / 2 - layout.tops[current]!;
		const middle = { x: size.width / 2, y: Math.min(size.height - 30, Math.max(30, seen / scale)) };
		const taken = (y: number) =>
			(byPage[sheet.key] ?? []).some((f) => {
				const at = shownAt(plan, f);
				return Math.abs(at.top + at.height / 2 - y) < 12;
			});
		while (taken(middle.y) && middle.y < size.height - 60) middle.y += 48;
		put(sheet, bench.placing, keepMiddle(sheet, middle));
		await tick();
		scroller.querySelector<HTMLElement>(`[data-field="${bench.fieldIds[0]}"]`)?.focus();
	}

	function keepMiddle(sheet: Sheet, { x, y }: { x: number; y: number }) {
		const kept = keepOnPage(sheet.page, { left: x, top: y, width: 4, height: 4 });
		return { x: kept.left, y: kept.top };
	}

	function goToSheet(key: string, near = false) {
		const i = sheets.findIndex((s) => s.key === key);
		if (i < 0) return;
		const at = layout.tops[i]!;
		if (near && at >= top && at + layout.sheets[i]!.height <= top + height) return;
		scroller.scrollTop = at - GAP;
		onscroll();
	}

	/** Brings a page into view. */
	export function goTo(key: string) {
		goToSheet(key);
	}

	/** Brings a field into view, and the focus to it. */
	export async function goToField(id: string) {
		const field = plan.fields.find((f) => f.id === id);
		if (!field) return;
		const sheet = sheetOf(field);
		if (!sheet) return;
		const at = layout.tops[sheets.indexOf(sheet)]! + shownAt(plan, field).top * scale;
		if (at < top + 40 || at > top + height - 60) {
			scroller.scrollTop = at - height / 2;
			onscroll();
		}
		await tick();
		scroller.querySelector<HTMLElement>(`[data-field="${id}"]`)?.focus({ preventScroll: true });
	}

	/** The page in view, for what is pasted. */
	export function pageInView(): { paper: string; page: number } | null {
		const sheet = sheets[current];
		return sheet ? { paper: sheet.paper.id, page: sheet.number } : null;
	}

	function onscroll() {
		top = scroller.scrollTop;
		const middle = top + scroller.clientHeight / 2;
		const found = layout.tops.findIndex((t, i) => t + sheets[i]!.height > middle);
		current = found < 0 ? Math.max(0, sheets.length - 1) : found;
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (what scrolls must be reached by keyboard) -->
<div
	bind:this={scroller}
	bind:clientHeight={height}
	{onscroll}
	role="region"
	aria-label="Pages"
	tabindex="0"
	class="relative h-full overflow-auto select-none {bench.placing ? 'placing' : ''}"
	data-testid="sheets"
>
	<div class="relative mx-auto" style:height="{layout.height}px" style:min-width="{layout.width + 64}px">
		{#each sheets as sheet, i (sheet.key)}
			{#if i >= drawnSheets.from && i <= drawnSheets.to}
				<div
					class="absolute left-1/2 -translate-x-1/2"
					style:top="{layout.tops[i]}px"
					style:width="{sheet.width}px"
					style:height="{sheet.height}px"
					data-sheet={sheet.key}
				>
					<!-- svelte-ignore a11y_no_static_element_interactions, a11y_click_events_have_key_events (by keyboard placing is done with Enter, choosing with Tab and the list) -->
					<div onpointerdown={(event) => banding.start(event, sheet, bench)} onclick={(event) => press(event, sheet)}>
						<PagePicture
							url="/papers/{sheet.paper.digest}"
							number={sheet.number}
							page={sheet.page}
							{scale}
							label="{sheet.paper.name}, page {sheet.number + 1} of {sheet.paper.pages.length}"
						/>
					</div>
					{#if bench.showFound}
						{#each freeOn(sheet.paper, sheet.number) as found (foundName(sheet, found))}
							<button
								class="absolute cursor-pointer rounded-[2px] border border-dashed border-[#a85a1f] bg-[#a85a1f0d] hover:bg-[#a85a1f26] focus-visible:bg-[#a85a1f26]"
								style:left="{found.rect.left * scale}px"
								style:top="{found.rect.top * scale}px"
								style:width="{found.rect.width * scale}px"
								style:height="{found.rect.height * scale}px"
								data-found={foundName(sheet, found)}
								aria-label="Found: {kindOf(found.kind).name}, {found.label}, {whoseSaid(found.owner)}. Enter takes it."
								title="{found.label} · {kindOf(found.kind).name} · {whoseSaid(found.owner)}"
								onclick={() =>
									bench.placing ? take(sheet, [asKind(found, bench.placing)], 'the chosen') : take(sheet, [found])}
								>{#if found.owner === null}<span
										class="absolute -top-2 -right-2 grid h-4 w-4 place-items-center rounded-full border border-copper bg-sheet text-[11px] leading-none text-copper"
										aria-hidden="true">?</span
									>{:else}<span class="absolute inset-y-0 left-0 w-[5px]" style:background={weaveOf(plan, found.owner)}
									></span>{/if}</button
							>
						{/each}
					{/if}
					<Covers fields={byPage[sheet.key] ?? []} page={sheet.page} {scale} />
					{#each landmarks[sheet.key] ?? [] as rect, n (n)}
						<span
							class="pointer-events-none absolute border-b-2 border-[#14525c]"
							data-landmark
							style="left:{rect.left * scale}px;top:{rect.top * scale}px;width:{rect.width *
								scale}px;height:{(rect.height + 3) * scale}px"
						></span>
					{/each}
					{#each byPage[sheet.key] ?? [] as field (field.id)}
						<FieldBox
							{field}
							{scale}
							at={dragging.at(field)}
							shift={dragging.shift(field)}
							weave={weaveOf(plan, field.person)}
							owner={ownerName(plan, field.person)}
							named={plan.people.some((p) => p.id === field.person)}
							chosen={bench.fieldIds.includes(field.id)}
							untold={field.id in bench.untold && bench.untold[field.id] === field.person}
							fixed={isFixed(bench.correcting, field)}
							alone={bench.fieldIds.length === 1 && bench.fieldIds[0] === field.id}
							onchoose={(add) => choose(field.id, add)}
							ondrag={(event, was) => dragging.start(event, field, ALL_SIDES, was)}
							onsingle={() => bench.chooseFields([field.id])}
							onsize={(event, across, down) =>
								dragging.start(event, field, {
									left: across < 0,
									right: across > 0,
									top: down < 0,
									bottom: down > 0
								})}
						/>
					{/each}
					{#if drag?.key === sheet.key}
						{#each drag.guides as guide (guide.axis)}
							<span
								class="pointer-events-none absolute bg-[#a85a1f]"
								data-guide={guide.axis}
								style={guide.axis === 'x'
									? `left:${guide.at * scale}px;top:${guide.from * scale - 8}px;width:1px;height:${(guide.to - guide.from) * scale + 16}px`
									: `top:${guide.at * scale}px;left:${guide.from * scale - 8}px;height:1px;width:${(guide.to - guide.from) * scale + 16}px`}
							></span>
						{/each}
					{/if}
					{#if band?.key === sheet.key}
						<span
							class="pointer-events-none absolute border border-[#14525c] bg-[#14525c1a]"
							style="left:{band.rect.left * scale}px;top:{band.rect.top * scale}px;width:{band.rect.width *
								scale}px;height:{band.rect.height * scale}px"
						></span>
					{/if}
				</div>
			{/if}
		{/each}
	</div>
</div>

<style>
	.placing,
	.placing :global(button) {
		cursor: crosshair;
	}
</style>
