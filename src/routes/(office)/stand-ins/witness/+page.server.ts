import { house } from '$lib/server';
import { witness, witnessRoots } from '$lib/server/keeping';
import { standInsFor } from '$lib/server/stand-ins';

export const load = ({ locals }) => {
	standInsFor(locals);
	return { roots: witnessRoots(house().db), by: witness(house()).by };
};
