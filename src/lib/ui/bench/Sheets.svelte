<script lang="ts">
	import { tick } from 'svelte';
	import { keepOnPage, shownSize, toShown, type ShownRect } from '../../core/page';
	import type { Field } from '../../core/packet';
	import PagePicture from '../pages/PagePicture.svelte';
	import type { Bench } from './bench.svelte';
	import { pageOf, placeField, shiftFields } from './edits';
	import FieldBox from './FieldBox.svelte';

	/** The pages, one under the other, with their fields. */
	let { bench, scale, current = $bindable(0) }: { bench: Bench; scale: number; current?: number } = $props();

	const plan = $derived(bench.plan);
	const sheets = $derived(
		plan.papers.flatMap((paper) =>
			paper.pages.map((page, number) => ({ paper, page, number, key: `${paper.id}-${number}` }))
		)
	);
	let scroller: HTMLDivElement;
	/** a drag under way, in points as shown; the plan changes when it ends */
	let drag = $state<{ how: 'move' | 'size'; dx: number; dy: number } | null>(null);

	function place(field: Field): ShownRect {
		const page = pageOf(plan, field)!;
		const at = toShown(page, field.rect);
		if (!drag || !bench.fieldIds.includes(field.id)) return at;
		const wanted =
			drag.how === 'move'
				? { ...at, left: at.left + drag.dx, top: at.top + drag.dy }
				: { ...at, width: Math.max(8, at.width + drag.dx), height: Math.max(8, at.height + drag.dy) };
		return keepOnPage(page, wanted);
	}

	function startDrag(event: PointerEvent, how: 'move' | 'size') {
		const from = { x: event.clientX, y: event.clientY };
		const target = event.currentTarget as HTMLElement;
		target.setPointerCapture(event.pointerId);
		const move = (e: PointerEvent) => {
			const dx = (e.clientX - from.x) / scale;
			const dy = (e.clientY - from.y) / scale;
			if (drag || Math.hypot(dx, dy) > 2 / scale) drag = { how, dx, dy };
		};
		const end = () => {
			target.removeEventListener('pointermove', move);
			const done = drag;
			drag = null;
			if (!done) return;
			const by = done.how === 'move' ? { left: done.dx, top: done.dy } : { width: done.dx, height: done.dy };
			bench.change(done.how === 'move' ? 'move' : 'size', shiftFields(plan, bench.fieldIds, by));
		};
		target.addEventListener('pointermove', move);
		target.addEventListener('pointerup', end, { once: true });
		target.addEventListener('pointercancel', end, { once: true });
	}

	function press(event: PointerEvent, sheet: (typeof sheets)[number]) {
		if (event.button !== 0) return;
		if (!bench.placing) {
			bench.chooseFields([]);
			return;
		}
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		put(sheet, { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale });
	}

	function put(sheet: (typeof sheets)[number], middle: { x: number; y: number }) {
		const placed = placeField(plan, bench.placing!, bench.person, sheet.paper.id, sheet.number, middle);
		bench.change(`place a field`, placed.plan);
		bench.chooseFields([placed.field]);
	}

	function choose(id: string, add: boolean) {
		const now = bench.fieldIds;
		bench.chooseFields(add ? (now.includes(id) ? now.filter((f) => f !== id) : [...now, id]) : [id]);
	}

	/** Places the kind in hand by keyboard: in the middle of what is seen, lower for each one that is there already. */
	export async function putByKey() {
		const sheet = sheets[current];
		if (!sheet) return;
		const element = scroller.querySelector<HTMLElement>(`[data-sheet="${sheet.key}"]`)!;
		const seen = scroller.getBoundingClientRect();
		const box = element.getBoundingClientRect();
		const size = shownSize(sheet.page);
		const middle = {
			x: size.width / 2,
			y: Math.min(size.height - 30, Math.max(30, ((seen.top + seen.bottom) / 2 - box.top) / scale))
		};
		const taken = (y: number) =>
			plan.fields.some(
				(f) =>
					f.paper === sheet.paper.id &&
					f.page === sheet.number &&
					Math.abs(toShown(sheet.page, f.rect).top + toShown(sheet.page, f.rect).height / 2 - y) < 12
			);
		while (taken(middle.y) && middle.y < size.height - 60) middle.y += 48;
		put(sheet, middle);
		await tick();
		scroller.querySelector<HTMLElement>(`[data-field="${bench.fieldIds[0]}"]`)?.focus();
	}

	/** Brings a page, or a field, into view. */
	export function goTo(selector: string) {
		scroller
			.querySelector<HTMLElement>(selector)
			?.scrollIntoView({ block: selector.startsWith('[data-field') ? 'center' : 'start' });
	}

	function onscroll() {
		const middle = scroller.getBoundingClientRect().top + scroller.clientHeight / 2;
		const boxes = [...scroller.querySelectorAll('[data-sheet]')].map((e) => e.getBoundingClientRect());
		const found = boxes.findIndex((b) => b.bottom > middle);
		current = found < 0 ? Math.max(0, boxes.length - 1) : found;
	}
</script>

<div
	bind:this={scroller}
	{onscroll}
	class="relative h-full overflow-auto px-8 py-4 {bench.placing ? 'placing' : ''}"
	data-testid="sheets"
>
	{#each sheets as sheet (sheet.key)}
		<div class="relative mx-auto mb-4 w-fit" data-sheet={sheet.key}>
			<!-- svelte-ignore a11y_no_static_element_interactions (placing by keyboard is done with Enter, see the tray) -->
			<div onpointerdown={(event) => press(event, sheet)}>
				<PagePicture
					url="/papers/{sheet.paper.digest}"
					number={sheet.number}
					page={sheet.page}
					{scale}
					label="{sheet.paper.name}, page {sheet.number + 1} of {sheet.paper.pages.length}"
				/>
			</div>
			{#each plan.fields.filter((f) => f.paper === sheet.paper.id && f.page === sheet.number) as field (field.id)}
				<FieldBox
					{field}
					{scale}
					at={place(field)}
					place={plan.people.findIndex((p) => p.id === field.person)}
					owner={plan.people.find((p) => p.id === field.person)?.name ?? ''}
					chosen={bench.fieldIds.includes(field.id)}
					onchoose={(add) => choose(field.id, add)}
					ondrag={startDrag}
				/>
			{/each}
		</div>
	{/each}
</div>

<style>
	.placing {
		cursor: crosshair;
	}
</style>
