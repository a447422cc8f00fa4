import { house } from '$lib/server';
import { batches } from '$lib/server/batches';

export const load = () => ({ rows: batches(house()), now: house().now().toISOString() });
