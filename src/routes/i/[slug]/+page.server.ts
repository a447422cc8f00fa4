import { house } from '$lib/server';
import { pageFor } from '$lib/server/intakes/page';

export const load = ({ params, url, locals }) => pageFor(house(), locals, params.slug, null, url.searchParams.get('k'));
