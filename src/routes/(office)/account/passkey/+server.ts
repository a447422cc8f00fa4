import { json } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import { Line } from '$lib/core/schema';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { addPasskey, askForNew } from '$lib/server/accounts';
import { border } from '$lib/server/border';
import { accountIn, answer, doerIn, proofIn } from '$lib/server/web';

const wanted = border(
	Type.Object({
		response: Type.Optional(Type.Object({ id: Type.String({ maxLength: 2000 }) })),
		name: Type.Optional(Line(60))
	})
);

/** Without an answer of the device: what to ask it. With one: keeps the passkey. */
export const POST = async ({ request, locals }) => {
	const body = wanted(await request.json());
	if (isRefusal(body)) return answer(body);
	const no = proofIn(locals);
	if (no) return answer(no);
	const me = accountIn(locals);
	if (!body.response) return json(await askForNew(house(), me));
	return answer(await addPasskey(house(), doerIn(locals), me, body.response, body.name?.trim() || 'A passkey'));
};
