import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { goOnCorrecting } from '$lib/server/packets/correcting';
import { readDraft } from '$lib/server/packets/drafts';
import { saveBench } from '$lib/server/templates';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer } from '$lib/server/web';

const checked = border(
	Type.Object(
		{ revision: Type.Integer(), plan: Type.Unknown(), over: Type.Optional(Type.Boolean()) },
		{ additionalProperties: false }
	)
);

/** Saves the draft; `until`: how long the packet that it corrects stays shut, null where it doesn't. `over`: the person has seen that it changed elsewhere and wants theirs to stand. */
export const PUT = async ({ params, request, locals }) => {
	const body = checked(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const revision = body.over ? (readDraft(house(), params.id)?.revision ?? body.revision) : body.revision;
	const saved = saveBench(house(), accountIn(locals), params.id, revision, body.plan);
	if (isRefusal(saved)) return answer(saved);
	const until = saved.corrects && goOnCorrecting(house(), accountIn(locals), saved.corrects);
	return answer({ revision: saved.revision, savedAt: saved.savedAt, until });
};
