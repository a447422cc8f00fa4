import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { arrived, ownBytes } from '$lib/server/arriving';
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
	const [field, name] = [url.searchParams.get('field') ?? '', url.searchParams.get('name') ?? 'File'];
	const body = await arrived(house(), request);
	return answer(await body(async (whole) => addFile(house(), visitor, field, name, ownBytes(await whole.bytes()))));
};
