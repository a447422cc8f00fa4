import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { scheduleDraft, unscheduleDraft } from '$lib/server/packets/schedule';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer } from '$lib/server/web';

const checked = border(
	Type.Object(
		{ revision: Type.Integer(), at: Type.Union([Type.String({ maxLength: 40 }), Type.Null()]) },
		{ additionalProperties: false }
	)
);

/** Sends a draft by itself at a time; `at: null` takes that back. */
export const POST = async ({ params, request, locals }) => {
	const body = checked(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const done =
		body.at === null
			? unscheduleDraft(house(), params.id)
			: scheduleDraft(house(), accountIn(locals), params.id, body.revision, body.at);
	return answer(isRefusal(done) ? done : { sendAt: done.sendAt });
};
