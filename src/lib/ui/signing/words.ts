import { getContext, setContext } from 'svelte';
import { ENGLISH, type Words } from '../../words/words';

const KEY = Symbol('words');

/** Sets the language of all that is drawn inside; `of` may change. */
export function giveWords(of: () => Words): void {
	setContext(KEY, of);
}

/** The texts of the page's language; English where nobody has set one, as on the Bench. */
export function useWords(): () => Words {
	return getContext<(() => Words) | undefined>(KEY) ?? (() => ENGLISH);
}
