import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { border } from '$lib/server/border';
import { saveIntake } from '$lib/server/intakes';
import { answer } from '$lib/server/web';

const saves = border(
	Type.Object({ revision: Type.Integer({ minimum: 1 }), setting: Type.Unknown() }, { additionalProperties: false })
);

export const PUT = async ({ params, request }) => {
	const body = saves(await bodyOf(request));
	return answer(isRefusal(body) ? body : saveIntake(house(), params.id, body.revision, body.setting));
};
