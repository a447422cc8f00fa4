import { answerTimestamp } from '$lib/press';
import { house } from '$lib/server';
import { sealKeys } from '$lib/server/keys';

/** The time-stamp authority stand-in over HTTP (RFC 3161 §3.4), for checking with `openssl ts`: an owner's only, or
 * anybody could have a fresh stamp for an old seal. */
export const POST = async ({ request }) => {
	const body = new Uint8Array(await request.arrayBuffer());
	const { stamp } = await sealKeys(house());
	const response = answerTimestamp(stamp, body.subarray(0, 10_000), house().now());
	return new Response(new Uint8Array(response), { headers: { 'Content-Type': 'application/timestamp-reply' } });
};
