import { house } from '$lib/server';
import { permitted } from '$lib/server/access';
import { isPaper } from '$lib/server/papers';
import { recognise } from '$lib/server/templates';
import { accountIn, answer } from '$lib/server/web';
import { refuse } from '$lib/core/refusal';

/** Which template a document looks like: `?digest=`. */
export const GET = ({ url, locals }) => {
	const digest = url.searchParams.get('digest') ?? '';
	return answer(
		isPaper(house(), digest) && permitted(house().db, accountIn(locals), 'see', 'file', digest)
			? recognise(house(), accountIn(locals), digest)
			: refuse('unknown-paper', 'This is not a document of this Pellum.')
	);
};
