import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { bringerOf, takeOut } from '$lib/server/paper';
import { doerOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

export const DELETE = async ({ params, locals }) => {
	const visitor = await doerOf(params.token, locals, 'save');
	if (isRefusal(visitor)) return answer(visitor);
	const bringer = bringerOf(visitor, locals.from);
	return answer(isRefusal(bringer) ? bringer : takeOut(house(), bringer, params.id));
};
