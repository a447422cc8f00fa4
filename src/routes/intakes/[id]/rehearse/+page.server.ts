import { askedPlan } from '$lib/core/intake';
import { isoDay } from '$lib/core/calendar';
import { house } from '$lib/server';
import { readIntake, shownOf, templatePlan } from '$lib/server/intakes';
import { organisation } from '$lib/server/settings';
import { accountIn, orError } from '$lib/server/web';
import { LANGUAGES, nameOfLanguage, visitTextsOf } from '$lib/words';

/** The page as its visitor would have it, as it is worked on; nothing that is entered goes anywhere. */
export const load = ({ params, locals, url }) => {
	const account = accountIn(locals);
	const intake = orError(readIntake(house(), params.id));
	const template = orError(templatePlan(house(), intake, intake.setting.version));
	const plan = askedPlan(template.plan, intake.setting);
	const { zone } = organisation(house().db);
	const language = LANGUAGES.find((one) => one === url.searchParams.get('in')) ?? 'en';
	return {
		...shownOf(intake.setting, plan),
		heading: intake.setting.heading,
		contact: account.email,
		today: isoDay(zone, house().now().toISOString()),
		language,
		texts: visitTextsOf(language),
		languages: LANGUAGES.map((one) => ({ language: one, name: nameOfLanguage(one) }))
	};
};
