import { folded } from '../folded';
import type { OtherPaper } from '../template';

/** Documents that rows may have instead of the template's, given beside the sheet. */

/** How a document stands: its fields are laid, it is still read, its fields want a look, or it can't be taken. */
export type RowDocument = { is: 'ready'; document: OtherPaper } | { is: 'waits' | 'doubt' | 'refused'; say: string };

/** By what a cell and a file's name are the same document: without its ending, in any letters. */
export const documentKey = (name: string): string =>
	folded(name.split(/[\\/]/).at(-1)!)
		.replace(/\.(pdf|docx)$/, '')
		.trim();
