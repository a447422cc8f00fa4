import { error } from '@sveltejs/kit';
import type { VisitorView } from '../../core/intake';
import { isRefusal } from '../../core/refusal';
import { chosenLanguage, wordsOf } from '../../words';
import type { House } from '../house';
import { count, TOO_MANY_LINKS } from '../limits';
import { statusOf } from '../web';
import { visitorView } from './view';

/** What an intake's page is drawn from; the error page, in the visitor's language, where nothing is there. Guesses are counted. */
export async function pageFor(
	house: House,
	locals: App.Locals,
	slug: string,
	token: string | null,
	key: string | null
): Promise<{ view: VisitorView; slug: string; token: string | null; key: string | null }> {
	const view = visitorView(house, slug, token, key);
	if (!isRefusal(view)) return { view, slug, token, key };
	const often = !(await count('link', locals.from.address));
	const words = wordsOf(chosenLanguage(locals.language.chosen, ...locals.language.accepted));
	const no = often ? TOO_MANY_LINKS : view;
	error(often ? 429 : statusOf(view), { message: words.refusal(no), code: no.code });
}
