import { fit, versionOf, type Fitting, type PageSize, type PaperReading, type ToFit } from '../core/page';
import { refuse, type Refusal } from '../core/refusal';
import { unfold } from './unfold';

/** Many documents at once, in the worker: taken out of a ZIP, and laid under a template's fields. */

const MOST = { bytes: 300 * 1024 * 1024, parts: 2000 };
const DOCUMENT = /\.(pdf|docx)$/i;

/** A file out of a bundle, by its bare name. */
export interface Bundled {
	name: string;
	bytes: Uint8Array;
}

/** PDF and Word documents in a ZIP, in whatever folders; other files are left out. Refuses `bundle-broken`, `bundle-heavy`, `bundle-empty`. */
export function openBundle({ bytes }: { bytes: Uint8Array }): Bundled[] | Refusal {
	const found = unfold(bytes, MOST);
	if (found === 'heavy')
		return refuse('bundle-heavy', 'The ZIP unfolds to more than is permitted: 300 MB, 2,000 files. Give it in parts.');
	if (found === 'broken') return refuse('bundle-broken', 'The ZIP can’t be opened. Make it anew, without a password.');
	const documents = [...found].flatMap(([path, file]): Bundled[] => {
		const name = path.split(/[\\/]/).at(-1)!;
		// what some systems put beside each file
		return DOCUMENT.test(name) && !name.startsWith('._') ? [{ name, bytes: file }] : [];
	});
	return documents.length > 0 ? documents : refuse('bundle-empty', 'There is no PDF and no Word document in the ZIP.');
}

/** Fields of one document laid on another. */
export function fitDocument(job: {
	old: { reading: PaperReading; pages: PageSize[] };
	next: { reading: PaperReading; pages: PageSize[] };
	fields: ToFit[];
}): Fitting {
	return fit(versionOf(job.old.reading, job.old.pages), versionOf(job.next.reading, job.next.pages), job.fields);
}
