import { refuse } from '$lib/core/refusal';
import { LIMITS } from '$lib/press';
import { house } from '$lib/server';
import { addPaper } from '$lib/server/papers';
import { answer } from '$lib/server/web';

/** Takes one file in: its bytes are the body, its name stands in `?name=`. */
export const POST = async ({ request, url }) => {
	const name = url.searchParams.get('name') ?? 'Document';
	if (Number(request.headers.get('content-length') ?? 0) > LIMITS.bytes)
		return answer(
			refuse(
				'file-too-large',
				`“${name.slice(0, 100)}” is larger than ${LIMITS.bytes / 1024 / 1024} MB, which is the most.`
			)
		);
	return answer(await addPaper(house(), name, new Uint8Array(await request.arrayBuffer())));
};
