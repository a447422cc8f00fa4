import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { Line } from '$lib/core/schema';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { border } from '$lib/server/border';
import { askCaseCode, proveCase } from '$lib/server/intakes';
import { answer } from '$lib/server/web';

const asks = border(
	Type.Object({ name: Line(200), email: Line(254), language: Line(10) }, { additionalProperties: false })
);
const enters = border(Type.Object({ code: Line(40) }, { additionalProperties: false }));

/** A code is asked for. */
export const PUT = async ({ params, locals, request }) => {
	const body = asks(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	return answer((await askCaseCode(house(), params.token, body, locals.from.address)) ?? { sent: true });
};

/** It is entered. */
export const POST = async ({ params, request }) => {
	const body = enters(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	return answer(proveCase(house(), params.token, body.code) ?? { proved: true });
};
