import { expose } from 'comlink';
import {
	findPlaces,
	fit,
	versionOf,
	type Fitting,
	type FoundPlace,
	type PageSize,
	type PaperReading,
	type ToFit
} from '../../core/page';

/** What is read and what it is read of, as it crosses into the worker. */
export interface Read {
	reading: PaperReading;
	pages: PageSize[];
}

/** The heavy looking at whole documents, beside the interface so that dragging never waits for it. */
const reader = {
	find({ reading, pages }: Read): FoundPlace[] {
		return findPlaces(reading, pages);
	},
	fit(old: Read, next: Read, fields: ToFit[]): Fitting {
		return fit(versionOf(old.reading, old.pages), versionOf(next.reading, next.pages), fields);
	}
};
export type Reader = typeof reader;
expose(reader);
