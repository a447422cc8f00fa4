import { house } from '$lib/server';
import { trustedRoots } from '$lib/server/keys';

export const load = async () => ({
	mail: house().config.smtp === null ? 'the Mailbox stand-in' : new URL(house().config.smtp!).host,
	roots: (await trustedRoots(house())).map((root) => root.name)
});
