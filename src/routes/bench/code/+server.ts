import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { hashedCode } from '$lib/server/packets/codes';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

const checked = border(
	Type.Object({ code: Type.String({ minLength: 4, maxLength: 40 }) }, { additionalProperties: false })
);

/** An access code as the plan keeps it: salted and hashed, so that the plan never holds the code itself. */
export const POST = async ({ request }) => {
	const body = checked(await bodyOf(request));
	return answer(isRefusal(body) ? body : { hash: hashedCode(house(), body.code) });
};
