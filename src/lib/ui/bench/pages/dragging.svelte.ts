import type { Field } from '../../../core/packet';
import { ALL_SIDES, snap, type Guide, type ShownRect, type Sides, type SnapTargets } from '../../../core/page';
import type { Bench } from '../bench.svelte';
import { copyFields } from '../../../core/plan';
import { shiftFields, shiftToPage, shownAt, withGroups } from '../../../core/plan';
import type { Layout, Sheet } from './layout';

/** How near, in CSS pixels, something must be to draw a dragged field to it. */
export const REACH = 6;
/** CSS pixels a pointer may tremble before a press is a drag. */
const TREMBLE = 3;

/** A drag under way, in points as shown; the plan changes when it ends. */
interface Drag {
	/** ids of what is moved, with where each was */
	from: Record<string, ShownRect>;
	sides: Sides;
	by: ShownRect;
	guides: Guide[];
	/** the sheet it began on */
	key: string;
	copy: boolean;
}

/** What dragging must know of the pages it happens on. */
interface Host {
	bench(): Bench;
	/** CSS pixels a point */
	scale(): number;
	layout(): Layout;
	scrolled(): number;
	sheetAt(x: number, y: number): Sheet | undefined;
	targetsOn(sheet: Sheet, without: string[]): SnapTargets;
}

/** Moves and sizes fields with the pointer, drawn to what is near; Ctrl lets them go where they will, Alt leaves copies. */
export class Dragging {
	now = $state.raw<Drag | null>(null);

	constructor(private host: Host) {}

	/** How far a field that is being moved has come: it is shifted as a layer of its own, so that the page is not painted anew. */
	shift(field: Field): { x: number; y: number } | null {
		const drag = this.now;
		return drag && drag.sides === ALL_SIDES && drag.from[field.id] ? { x: drag.by.left, y: drag.by.top } : null;
	}

	/** Where a field stands: as in the plan, but for one that is being sized. */
	at(field: Field): ShownRect {
		const drag = this.now;
		const from = drag && drag.sides !== ALL_SIDES ? drag.from[field.id] : undefined;
		if (!drag || !from) return shownAt(this.host.bench().plan, field);
		return {
			left: from.left + drag.by.left,
			top: from.top + drag.by.top,
			width: Math.max(8, from.width + drag.by.width),
			height: Math.max(8, from.height + drag.by.height)
		};
	}

	/**
	 * Follows the pointer until it is let go. `sides`: which edges move. `was`: the field was chosen before it was pressed;
	 * let go unmoved it is then the only one chosen.
	 */
	start(event: PointerEvent, held: Field, sides: Sides, was = false): void {
		const { host } = this;
		const bench = host.bench();
		const { plan } = bench;
		const scale = host.scale();
		const moving = sides === ALL_SIDES;
		const ids = moving ? withGroups(plan, bench.fieldIds.includes(held.id) ? bench.fieldIds : [held.id]) : [held.id];
		const sheet = host.layout().sheets.find((s) => s.paper.id === held.paper && s.number === held.page)!;
		const fields = plan.fields.filter((f) => ids.includes(f.id));
		const from = Object.fromEntries(fields.map((f) => [f.id, shownAt(plan, f)]));
		const on = fields.filter((f) => f.paper === held.paper && f.page === held.page).map((f) => from[f.id]!);
		const whole = moving ? around(on) : from[held.id]!;
		const targets = host.targetsOn(sheet, ids);
		const start = { x: event.clientX, y: event.clientY, scrolled: host.scrolled() };
		const target = event.currentTarget as HTMLElement;
		target.setPointerCapture(event.pointerId);
		let wanted: PointerEvent | null = null;
		let frame = 0;
		const step = () => {
			frame = 0;
			if (!wanted) return;
			const dx = (wanted.clientX - start.x) / scale;
			const dy = (wanted.clientY - start.y + host.scrolled() - start.scrolled) / scale;
			if (!this.now && Math.hypot(dx, dy) * scale <= TREMBLE) return;
			const moved = dragged(whole, sides, dx, dy);
			const free = wanted.ctrlKey || wanted.metaKey;
			const { rect, guides } = free ? { rect: moved, guides: [] } : snap(moved, targets, REACH / scale, sides);
			this.now = { from, sides, by: difference(rect, whole), guides, key: sheet.key, copy: moving && wanted.altKey };
		};
		const move = (e: PointerEvent) => {
			wanted = e;
			frame ||= requestAnimationFrame(step);
		};
		const end = (e: PointerEvent) => {
			target.removeEventListener('pointermove', move);
			target.removeEventListener('pointerup', end);
			target.removeEventListener('pointercancel', end);
			cancelAnimationFrame(frame);
			const ended = e.type === 'pointerup';
			if (ended && (this.now || wanted)) {
				wanted = e;
				step();
			}
			const done = this.now;
			this.now = null;
			if (done && ended) this.finish(done, ids, sheet, e);
			else if (was && ended && bench.fieldIds.length > 1) bench.chooseFields([held.id]);
		};
		target.addEventListener('pointermove', move);
		target.addEventListener('pointerup', end);
		target.addEventListener('pointercancel', end);
	}

	private finish(done: Drag, ids: string[], sheet: Sheet, event: PointerEvent): void {
		const bench = this.host.bench();
		const moving = done.sides === ALL_SIDES;
		let now = bench.plan;
		let moved = ids;
		if (done.copy) {
			const copied = copyFields(now, ids);
			now = shiftFields(copied.plan, copied.fields, { left: -12, top: -12 });
			moved = copied.fields;
		}
		const over = moving ? this.host.sheetAt(event.clientX, event.clientY) : undefined;
		if (over && over.key !== sheet.key) {
			const { sheets, tops } = this.host.layout();
			const scale = this.host.scale();
			// sheets stand one below the other, each in the middle, so a narrower one begins further right
			const down = (tops[sheets.indexOf(sheet)]! - tops[sheets.indexOf(over)]!) / scale;
			const aside = (sheet.width - over.width) / 2 / scale;
			const to = { paper: over.paper.id, page: over.number };
			now = shiftToPage(now, moved, to, { left: done.by.left - aside, top: done.by.top + down });
		} else now = shiftFields(now, moved, done.by);
		const many = moved.length === 1 ? 'a field' : `${moved.length} fields`;
		bench.change(done.copy ? `copy ${many}` : moving ? `move ${many}` : `size ${many}`, now);
		if (done.copy) bench.chooseFields(moved);
	}
}

/** A rectangle of which some sides have been dragged by so much; with all of them it is moved. */
function dragged(rect: ShownRect, sides: Sides, dx: number, dy: number): ShownRect {
	const moving = sides === ALL_SIDES;
	return {
		left: rect.left + (sides.left ? dx : 0),
		top: rect.top + (sides.top ? dy : 0),
		width: rect.width + (moving ? 0 : sides.left ? -dx : sides.right ? dx : 0),
		height: rect.height + (moving ? 0 : sides.top ? -dy : sides.bottom ? dy : 0)
	};
}

function difference(a: ShownRect, b: ShownRect): ShownRect {
	return { left: a.left - b.left, top: a.top - b.top, width: a.width - b.width, height: a.height - b.height };
}

function around(rects: ShownRect[]): ShownRect {
	const left = Math.min(...rects.map((r) => r.left));
	const top = Math.min(...rects.map((r) => r.top));
	return {
		left,
		top,
		width: Math.max(...rects.map((r) => r.left + r.width)) - left,
		height: Math.max(...rects.map((r) => r.top + r.height)) - top
	};
}
