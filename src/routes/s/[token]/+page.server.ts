import { house } from '$lib/server';
import { signingView } from '$lib/server/packets/signing';
import { visitorOrError } from '$lib/server/visitor';
import { CONSENT } from '$lib/words/consent';

export const load = async ({ params, locals }) => ({
	view: signingView(house(), await visitorOrError(params.token, locals)),
	consent: CONSENT.text
});
