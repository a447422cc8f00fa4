import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { handIn } from '$lib/server/intakes';
import { answer } from '$lib/server/web';

export const POST = async ({ params, locals, request }) =>
	answer(handIn(house(), params.token, await bodyOf(request), locals.from.address));
