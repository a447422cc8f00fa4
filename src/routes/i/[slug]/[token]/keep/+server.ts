import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { Line } from '$lib/core/schema';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { border } from '$lib/server/border';
import { keepCase } from '$lib/server/intakes';
import { count, TOO_OFTEN } from '$lib/server/limits';
import { answer } from '$lib/server/web';

const keeps = border(
	Type.Object({ page: Line(40), entered: Type.Optional(Type.Unknown()) }, { additionalProperties: false })
);

export const PUT = async ({ params, request }) => {
	const body = keeps(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	if (!(await count('caseKept', params.token))) return answer(TOO_OFTEN);
	return answer(keepCase(house(), params.token, body.page, body.entered));
};
