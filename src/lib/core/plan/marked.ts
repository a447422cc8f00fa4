import { kindOf } from '../field';
import type { Field, Paper, Plan } from '../packet';
import { fromShown, keepOnPage, markersOn, meaningOfMarker, type Marker, type ShownPage } from '../page';
import { freshId } from './edits';
import { ownerFor } from './field-edits';

/** A marker that became a field, or one that can't be understood. */
export type Marked = { marker: Marker; field: Field } | { marker: Marker; unknown: string; nearest: string | null };

export function isMarkerKnown(one: Marked): one is { marker: Marker; field: Field } {
	return 'field' in one;
}

/** The markers of a document as fields at their places; the marker under each is painted over on the sealed copy. */
export function markerFields(plan: Plan, paper: Paper, page: (number: number) => ShownPage | null): Marked[] {
	return paper.pages.flatMap((size, number) => {
		const shown = page(number);
		return (shown ? markersOn(shown, number) : []).map((marker): Marked => {
			const meant = meaningOfMarker(plan, marker);
			if ('unknown' in meant) return { marker, ...meant };
			const kind = kindOf(meant.kind);
			const { left, top, height } = marker.rect;
			const box = keepOnPage(size, { left, top: top + height - kind.size.height, ...kind.size });
			return {
				marker,
				field: {
					id: freshId('f'),
					kind: meant.kind,
					person: ownerFor(meant.kind, meant.person),
					paper: paper.id,
					page: number,
					rect: fromShown(size, box),
					cover: fromShown(size, keepOnPage(size, marker.rect)),
					label: meant.key ? meant.key.replaceAll('_', ' ') : kind.name,
					key: meant.key,
					required: true,
					settings: {}
				}
			};
		});
	});
}
