import { json } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { askForOne, proveAgain } from '$lib/server/accounts';
import { border } from '$lib/server/border';
import { wantedPage } from '$lib/server/sign-in-cookie';
import { accountIn, answer } from '$lib/server/web';

const wanted = border(
	Type.Object({
		response: Type.Optional(Type.Object({ id: Type.String({ maxLength: 2000 }) })),
		to: Type.Optional(Type.String({ maxLength: 500 }))
	})
);

export const POST = async ({ request, locals }) => {
	const body = wanted(await request.json());
	if (isRefusal(body)) return answer(body);
	const me = accountIn(locals);
	if (!body.response) return json(await askForOne(house(), me.id));
	const no = await proveAgain(house(), locals.token, me, locals.from, { passkey: body.response });
	return no ? answer(no) : json({ to: wantedPage(body.to ?? null) });
};
