import { folded } from '../folded';
import { KEY_PATTERN } from '../schema';
import { FUNCTIONS } from '../rule';

const FORM = new RegExp(KEY_PATTERN);
const TAKEN = new Set([...Object.keys(FUNCTIONS), 'true', 'false', 'this']);

/** What is wrong with a key, in a sentence that offers one that will do; null where nothing is. Empty is no key at all. */
export function keyFault(key: string): string | null {
	if (key === '' || (FORM.test(key) && !TAKEN.has(key))) return null;
	const plain = plainKey(key);
	const why = TAKEN.has(key)
		? `“${key}” is a word of rules`
		: 'A key begins with a letter and has only letters, digits and _';
	return `${why}.${plain && plain !== key ? ` “${plain}” would do.` : ''}`;
}

/** A name made into a key: letters without their marks, digits, underscores; '' where nothing is left. */
export function plainKey(name: string): string {
	const plain = folded(name)
		.replace(/ß/g, 'ss')
		.replace(/[^a-z0-9]+/g, '_')
		.replace(/^[^a-z]+|_+$/g, '')
		.slice(0, 60);
	return TAKEN.has(plain) ? `${plain}_1` : plain;
}

/** A key that nobody has yet: the wanted one, or with a number after it. */
export function freeKey(wanted: string, taken: Iterable<string>): string {
	const all = new Set(taken);
	if (!all.has(wanted)) return wanted;
	const stem = wanted.replace(/_\d+$/, '').slice(0, 55);
	for (let n = 2; ; n++) if (!all.has(`${stem}_${n}`)) return `${stem}_${n}`;
}
