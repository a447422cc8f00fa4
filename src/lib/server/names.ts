import { oneLine } from '../core/clean-text';

/** A file's name as it came: without path, control characters and direction marks. */
export function bareName(fileName: string): string {
	return oneLine(fileName.normalize('NFC').replace(/^.*[\\/]/s, '')).trim();
}
