import { json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { heldOn, personAsZip } from '$lib/server/keeping';
import { meIn, orError } from '$lib/server/web';

/** What is held on somebody, a line a packet, with what would stay if they were forgotten. */
export const GET = async ({ url }) =>
	json({ held: await heldOn(house(), url.searchParams.get('address')?.slice(0, 254) ?? '') });

/** All of it as a ZIP; in the office's record, so that no link from elsewhere may bring it about. */
export const POST = async ({ request, locals }) => {
	const address = (await formIn(request)).text('address', 254);
	const { stream, name } = orError(await personAsZip(house(), meIn(locals), address));
	return new Response(stream, {
		headers: {
			'Content-Type': 'application/zip',
			'Cache-Control': 'no-store',
			'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`
		}
	});
};
