import { isRefusal, refuse, refuseWith } from '$lib/core/refusal';
import { house } from '$lib/server';
import { count } from '$lib/server/limits';
import { addMarkPicture } from '$lib/server/signing';
import { visitorOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

/** A picture to sign with: its bytes are the body. */
export const POST = async ({ params, locals, request }) => {
	const visitor = await visitorOf(params.token, locals);
	if (isRefusal(visitor)) return answer(visitor);
	if (!(await count('upload', params.token)))
		return answer(refuse('too-often', 'Too many pictures in a short time. Wait ten minutes, then try again.'));
	if (Number(request.headers.get('content-length') ?? 0) > 10 * 1024 * 1024)
		return answer(refuseWith('file-too-large', 'The picture may have 10 MB at most.', { megabytes: 10 }));
	return answer(await addMarkPicture(house(), visitor, new Uint8Array(await request.arrayBuffer())));
};
