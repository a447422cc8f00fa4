import { MOST_MEGABYTES } from '$lib/core/field';
import { isRefusal, refuse, refuseWith } from '$lib/core/refusal';
import { house } from '$lib/server';
import { count } from '$lib/server/limits';
import { addFile } from '$lib/server/signing';
import { visitorOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

/** A file handed in for a field: its bytes are the body, `?field=` and `?name=` say what for and what it is called. */
export const POST = async ({ params, locals, request, url }) => {
	const visitor = await visitorOf(params.token, locals);
	if (isRefusal(visitor)) return answer(visitor);
	if (!(await count('upload', params.token)))
		return answer(refuse('too-often', 'Too many files in a short time. Wait ten minutes, then try again.'));
	if (Number(request.headers.get('content-length') ?? 0) > MOST_MEGABYTES * 1024 * 1024)
		return answer(
			refuseWith('file-too-large', `The file may have ${MOST_MEGABYTES} MB at most.`, { megabytes: MOST_MEGABYTES })
		);
	const bytes = new Uint8Array(await request.arrayBuffer());
	return answer(
		await addFile(house(), visitor, url.searchParams.get('field') ?? '', url.searchParams.get('name') ?? 'File', bytes)
	);
};
