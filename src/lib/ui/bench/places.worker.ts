import { expose } from 'comlink';
import { findPlaces, type FoundPlace, type PageSize, type PaperReading } from '../../core/page';

/** Finds the places of a whole document, beside the interface so that dragging never waits for it. */
const finder = {
	find(reading: PaperReading, pages: PageSize[]): FoundPlace[] {
		return pages.flatMap((page, number) => findPlaces(reading, number, page));
	}
};
export type Finder = typeof finder;
expose(finder);
