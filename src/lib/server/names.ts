import { cutText, oneLine } from '../core/clean-text';

/** A file's name as it came: without path, control characters and direction marks. */
export function bareName(fileName: string): string {
	return oneLine(fileName.normalize('NFC').replace(/^.*[\\/]/s, '')).trim();
}

/** A file's name of 200 letters at most, with its ending. */
export function shortName(name: string): string {
	const ending = /\.[\p{L}\p{N}]{1,10}$/u.exec(name)?.[0] ?? '';
	return cutText(name.slice(0, name.length - ending.length), 200 - ending.length) + ending;
}
