import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { putInUse } from '$lib/server/templates';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer } from '$lib/server/web';

const checked = border(
	Type.Object({ revision: Type.Integer(), note: Type.String({ maxLength: 500 }) }, { additionalProperties: false })
);

/** Puts the template that is being changed here in use, as its next version. */
export const POST = async ({ params, request, locals }) => {
	const body = checked(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	return answer(putInUse(house(), accountIn(locals), params.id, body.revision, body.note));
};
