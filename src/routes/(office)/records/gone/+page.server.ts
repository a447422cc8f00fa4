import { house } from '$lib/server';
import { disposals } from '$lib/server/keeping';
import { numberOf } from '$lib/server/office-record';
import { accountIn } from '$lib/server/web';

export const load = ({ locals }) => ({
	mayAct: accountIn(locals).level !== 'viewer',
	gone: disposals(house().db).map((one) => ({ ...one, called: numberOf(one.number) }))
});
