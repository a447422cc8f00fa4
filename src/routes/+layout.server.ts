import { house } from '$lib/server';
import { organisation } from '$lib/server/settings';

export const load = ({ locals }) => ({
	account: locals.account,
	// the signing page shows the organisation's look; everything else of it is the office's
	organisation: (({ name, colour, logo, zone }) => ({ name, colour, logo: logo !== '', zone }))(
		organisation(house().db)
	),
	demo: house().config.demo
});
