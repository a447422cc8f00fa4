import { house } from '$lib/server';
import { spareKnown } from '$lib/server/identity';
import { lookAtCopy, signingView } from '$lib/server/signing';
import { languageOf, visitorOrError } from '$lib/server/visitor';
import { LANGUAGES, nameOfLanguage, pageTextsOf, wordsOf } from '$lib/words';
import { consentLines } from '$lib/words/consent';

export const load = async ({ params, locals }) => {
	let visitor = await visitorOrError(params.token, locals);
	// whoever showed it lately is not asked again
	if (!visitor.proved && spareKnown(house(), visitor)) visitor = await visitorOrError(params.token, locals);
	const language = languageOf(visitor, locals);
	const view = signingView(house(), visitor, language);
	if (view.state === 'finished' || view.state === 'so far') lookAtCopy(house(), visitor, locals.from);
	return {
		view,
		language,
		direction: wordsOf(language).direction,
		texts: pageTextsOf(language),
		languages: LANGUAGES.map((one) => ({ language: one, name: nameOfLanguage(one) })),
		consent: consentLines(language, view.me.duty)
	};
};
