import type { ShownRect } from '../../../core/page';
import type { Bench } from '../bench.svelte';
import type { Sheet } from './layout';

/** Points a band must measure, one way or the other, to be more than a press. */
const LEAST = 3;

/** A band drawn round what is to be chosen. By touch there is none: there the page scrolls. */
export class Banding {
	now = $state.raw<{ key: string; rect: ShownRect } | null>(null);

	constructor(
		/** CSS pixels a point */
		private scale: () => number,
		private fieldsIn: (sheet: Sheet, rect: ShownRect) => string[]
	) {}

	/** On a free spot of a page. With Shift what is chosen already stays chosen. */
	start(event: PointerEvent, sheet: Sheet, bench: Bench): void {
		if (event.button !== 0 || event.pointerType === 'touch' || bench.placing) return;
		const target = event.currentTarget as HTMLElement;
		const box = target.getBoundingClientRect();
		const scale = this.scale();
		const at = (e: PointerEvent) => ({ x: (e.clientX - box.left) / scale, y: (e.clientY - box.top) / scale });
		const start = at(event);
		const before = event.shiftKey ? bench.fieldIds : [];
		target.setPointerCapture(event.pointerId);
		const move = (e: PointerEvent) => {
			const now = at(e);
			this.now = {
				key: sheet.key,
				rect: {
					left: Math.min(start.x, now.x),
					top: Math.min(start.y, now.y),
					width: Math.abs(now.x - start.x),
					height: Math.abs(now.y - start.y)
				}
			};
		};
		const end = () => {
			target.removeEventListener('pointermove', move);
			target.removeEventListener('pointerup', end);
			target.removeEventListener('pointercancel', end);
			const rect = this.now?.rect;
			this.now = null;
			const marking = bench.marking;
			const inside = rect && Math.max(rect.width, rect.height) > LEAST ? this.fieldsIn(sheet, rect) : [];
			// marking a phrase leaves what is chosen as it is: the phrase is for those fields
			if (marking) return;
			bench.chooseFields([...before, ...inside.filter((id) => !before.includes(id))]);
		};
		target.addEventListener('pointermove', move);
		target.addEventListener('pointerup', end);
		target.addEventListener('pointercancel', end);
	}
}
