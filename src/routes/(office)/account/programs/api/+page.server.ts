import { RIGHT_SAYS, RIGHTS } from '$lib/server/api';

export const load = () => ({ rights: RIGHTS.map((right) => [right, RIGHT_SAYS[right]] as const) });
