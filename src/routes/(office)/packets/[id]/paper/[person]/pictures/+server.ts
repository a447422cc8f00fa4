import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { arrived, ownBytes } from '$lib/server/arriving';
import { addReturned, handInReturn, officeBringer } from '$lib/server/paper';
import { accountIn, answer } from '$lib/server/web';

/** What came by post, taken in by the office. */
export const POST = async ({ params, locals, request, url }) => {
	const bringer = officeBringer(house(), accountIn(locals), params.id, params.person);
	if (isRefusal(bringer)) return answer(bringer);
	const body = await arrived(house(), request);
	const name = url.searchParams.get('name') ?? '';
	return answer(await body(async (whole) => addReturned(house(), bringer, name, ownBytes(await whole.bytes()))));
};

export const PUT = ({ params, locals }) => {
	const bringer = officeBringer(house(), accountIn(locals), params.id, params.person);
	return answer(isRefusal(bringer) ? bringer : handInReturn(house(), bringer));
};
