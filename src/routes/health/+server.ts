import { json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { health, isWatcher } from '$lib/server/health';

/** Whether it is ready, for anybody; for the watcher, how it is. 503 where nothing can be written. */
export const GET = ({ request }) => {
	const found = health(house());
	const status = found.ready ? 200 : 503;
	return json(isWatcher(house(), request.headers.get('authorization')) ? found : { ready: found.ready }, { status });
};
