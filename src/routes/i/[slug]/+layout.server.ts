import { LANGUAGES, chosenLanguage, nameOfLanguage, visitTextsOf, wordsOf } from '$lib/words';

/** The language of a visitor's page: what they chose, or what their browser asks for. */
export const load = ({ locals }) => {
	const language = chosenLanguage(locals.language.chosen, ...locals.language.accepted);
	return {
		language,
		direction: wordsOf(language).direction,
		texts: visitTextsOf(language),
		languages: LANGUAGES.map((one) => ({ language: one, name: nameOfLanguage(one) }))
	};
};
