import type { Plugin } from 'vite';
import { compiled, ofPages } from '../src/lib/words/compile';

/** The texts of the signing page are taken apart when Pellum is built, so that no page carries a parser of messages, nor what only letters say. */
export const compiledTexts: Plugin = {
	name: 'compiled-texts',
	enforce: 'pre',
	transform: (code, id, options) => {
		if (!/words\/languages\/\w+\.json$/.test(id)) return null;
		const texts = compiled(JSON.parse(code) as Record<string, string>);
		return { code: JSON.stringify(options?.ssr ? texts : ofPages(texts)), map: null };
	}
};
