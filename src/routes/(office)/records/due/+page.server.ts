import { house } from '$lib/server';
import { keepingSetting } from '$lib/server/filing';
import { dueRows } from '$lib/server/keeping';
import { accountIn } from '$lib/server/web';

export const load = ({ locals }) => ({
	rows: dueRows(house(), accountIn(locals)),
	two: keepingSetting(house().db).two,
	now: house().now().toISOString()
});
