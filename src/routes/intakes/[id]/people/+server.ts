import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { invitePeople } from '$lib/server/intakes';
import { answer, fileResponse } from '$lib/server/web';

/** A sheet of people; what comes back is the same with each one's link. */
export const POST = async ({ params, request }) => {
	const made = await invitePeople(house(), params.id, new Uint8Array(await request.arrayBuffer()));
	if (isRefusal(made)) return answer(made);
	return fileResponse(new TextEncoder().encode(made.csv), 'text/csv; charset=utf-8', 'Links.csv');
};
