import { json } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { askForOne, finishSignIn, signInByPasskey } from '$lib/server/accounts';
import { border } from '$lib/server/border';
import { setSession, wantedPage } from '$lib/server/sign-in-cookie';
import { answer } from '$lib/server/web';

const wanted = border(
	Type.Object({
		response: Type.Optional(Type.Object({ id: Type.String({ maxLength: 2000 }) })),
		to: Type.Optional(Type.String({ maxLength: 500 }))
	})
);

/** Without an answer of the device: what to ask it. With one: signs in, alone or as the second factor. */
export const POST = async ({ request, cookies, locals, url }) => {
	const body = wanted(await request.json());
	if (isRefusal(body)) return answer(body);
	const half = locals.session?.wants === 'second' ? locals.session : null;
	if (!body.response) return json(await askForOne(house(), half?.account.id ?? null));
	const token = half
		? await finishSignIn(house(), locals.token, half.account, locals.from, { passkey: body.response })
		: await signInByPasskey(house(), body.response, locals.from);
	if (isRefusal(token)) return answer(token);
	setSession(cookies, url, token);
	return json({ to: wantedPage(body.to ?? null) });
};
