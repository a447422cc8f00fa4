import { createVirtualizer, createWindowVirtualizer, type SvelteVirtualizer } from '@tanstack/svelte-virtual';
import { onMount } from 'svelte';
import { fromStore, get, type Readable } from 'svelte/store';

type Virtual = SvelteVirtualizer<Element, HTMLElement>;

/** How many rows stand there before there is a view: the server has none. */
const FIRST = 60;

/** Which rows of a table are near the view, and how high what is above and below them is. */
export class Near {
	/** in the browser, where there is a view */
	mounted = $state(false);
	#store = $state.raw<Readable<Virtual> | null>(null);
	#now = $derived(this.#store && fromStore(this.#store));

	/** @param of its rows' place, what scrolls (the page where it is undefined), the rows' ids, and a row's height until it is drawn */
	constructor(
		private readonly of: {
			body: () => HTMLElement | undefined;
			scroller: () => HTMLElement | undefined;
			ids: () => string[];
			estimate: () => number;
		}
	) {
		onMount(() => {
			const options = { ...this.#options(), estimateSize: of.estimate, overscan: 6 };
			this.#store = (of.scroller()
				? createVirtualizer<HTMLElement, HTMLElement>({ ...options, getScrollElement: () => of.scroller() ?? null })
				: createWindowVirtualizer<HTMLElement>(options)) as unknown as Readable<Virtual>;
			this.mounted = true;
		});
		$effect(() => {
			const options = this.#options();
			if (this.#store) get(this.#store).setOptions(options);
		});
	}

	#options() {
		const ids = this.of.ids();
		const body = this.of.body();
		return {
			count: ids.length,
			getItemKey: (index: number) => ids[index] ?? index,
			// a row that comes is as high as it was, or is thought to be, until its own size is told after the layout: asking for it
			// would lay out the page once more for each
			measureElement: (
				row: Element,
				told: ResizeObserverEntry | undefined,
				virtual: { measurementsCache: { size: number }[] }
			) =>
				told?.borderBoxSize[0]?.blockSize ??
				virtual.measurementsCache[Number((row as HTMLElement).dataset['index'])]?.size ??
				this.of.estimate(),
			// where the rows begin on the page, which scrolls as a whole
			scrollMargin: !this.of.scroller() && body ? body.getBoundingClientRect().top + window.scrollY : 0
		};
	}

	#items = $derived.by(() => {
		const count = this.of.ids().length;
		return this.#now?.current.getVirtualItems().filter(({ index }) => index < count) ?? [];
	});
	#margin = $derived(this.#now?.current.options.scrollMargin ?? 0);

	// numbers, so that a scroll within the same rows asks nothing anew of the table
	#first = $derived(this.mounted ? (this.#items[0]?.index ?? 0) : 0);
	#end = $derived.by(() =>
		this.mounted ? (this.#items[this.#items.length - 1]?.index ?? -1) + 1 : Math.min(FIRST, this.of.ids().length)
	);
	/** the places of the rows that are drawn */
	drawn = $derived(Array.from({ length: Math.max(0, this.#end - this.#first) }, (_, i) => this.#first + i));
	before = $derived(this.#items.length > 0 ? this.#items[0]!.start - this.#margin : 0);
	after = $derived.by(() => {
		const last = this.#items[this.#items.length - 1];
		return last ? Math.max(0, this.#now!.current.getTotalSize() - (last.end - this.#margin)) : 0;
	});

	/** Brings a row into view. */
	show(index: number): void {
		this.#now?.current.scrollToIndex(index, { align: 'auto' });
	}
	/** Of a row that is drawn: it may be higher than was thought. */
	measure = (row: HTMLElement): void => {
		if (this.#store) get(this.#store).measureElement(row);
	};
}
