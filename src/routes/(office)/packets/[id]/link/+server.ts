import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { takeLink } from '$lib/server/packets/office';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer } from '$lib/server/web';

const checked = border(Type.Object({ person: Type.String({ maxLength: 40 }) }, { additionalProperties: false }));

/** The link of somebody to whom the office hands it on. It is shown once; a new one may be taken at any time. */
export const POST = async ({ params, request, locals }) => {
	const body = checked(await bodyOf(request));
	return answer(isRefusal(body) ? body : takeLink(house(), accountIn(locals), params.id, body.person));
};
