import { house } from '$lib/server';
import { accountIn } from '$lib/server/web';
import { batches } from '$lib/server/batches';

export const load = ({ locals }) => ({ rows: batches(house(), accountIn(locals)), now: house().now().toISOString() });
