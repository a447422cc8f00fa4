import { house } from '$lib/server';
import { pageFor } from '$lib/server/intakes/page';

export const load = ({ params, locals }) => pageFor(house(), locals, params.slug, params.token, null);
