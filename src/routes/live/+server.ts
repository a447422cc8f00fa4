import { house } from '$lib/server';
import { permitted } from '$lib/server/access';
import { accountIn } from '$lib/server/web';

/** Server-sent events (HTML Standard §9.2): `packet` with an id whenever something changed. A comment each 20 s keeps it open. */
export const GET = ({ request, locals }) => {
	const { changes, db } = house();
	const account = accountIn(locals);
	let end = () => {};
	const stream = new ReadableStream<string>({
		start(controller) {
			const say = (text: string) => controller.enqueue(text);
			const onPacket = (packet: string) => {
				if (permitted(db, account, 'see', 'packet', packet)) say(`event: packet\ndata: ${JSON.stringify(packet)}\n\n`);
			};
			const beat = setInterval(() => say(': still here\n\n'), 20_000);
			changes.on('packet', onPacket);
			say('retry: 2000\n\n');
			end = () => {
				clearInterval(beat);
				changes.off('packet', onPacket);
			};
			request.signal.addEventListener('abort', () => {
				end();
				try {
					controller.close();
				} catch {
					// closed already by the one who listened
				}
			});
		},
		cancel: () => end()
	});
	return new Response(stream.pipeThrough(new TextEncoderStream()), {
		headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' }
	});
};
