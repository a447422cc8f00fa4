import { FROM_THE_END, SORTS, type PacketsAsked, type Sort } from '../../core/packet';
import type { Order } from '../parts/table/columns';

/** The order a list of packets stands in, as the heads of its table show it. */
export function orderOf({ list, sort = SORTS[list][0], turned = false }: PacketsAsked): Order {
	return { key: sort, down: FROM_THE_END.includes(sort) !== turned };
}

/** The same for its address. */
export function sortOf({ key, down }: Order): { sort: Sort; turned: boolean } {
	return { sort: key as Sort, turned: FROM_THE_END.includes(key as Sort) !== down };
}
