import type { Plugin } from 'vite';
import { compiled } from '../src/lib/words/compile';

/** The texts of the signing page are taken apart when Pellum is built, so that no page carries a parser of messages. */
export const compiledTexts: Plugin = {
	name: 'compiled-texts',
	enforce: 'pre',
	transform: (code, id) =>
		/words\/languages\/\w+\.json$/.test(id)
			? { code: JSON.stringify(compiled(JSON.parse(code) as Record<string, string>)), map: null }
			: null
};
