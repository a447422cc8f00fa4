import { refuse, type Refusal } from '../../core/refusal';
import type { House } from '../house';
import { newReference } from '../ids';
import type { Account } from './levels';
import { addAccount, hasAccounts } from './people';

const codes = new WeakMap<object, string>();

/**
 * What the first owner shows to be one who runs this Pellum: printed where it was started, good until there is an account.
 * Made when first asked for.
 */
export function setUpCode(house: House): string {
	let code = codes.get(house.db);
	if (!code) codes.set(house.db, (code = `${newReference().slice(2)}-${newReference().slice(2)}`));
	return code;
}

/** The first owner. Refuses `wrong-code`, what {@link addAccount} refuses, and `set-up` where somebody was faster. */
export async function addFirstOwner(
	house: House,
	code: string,
	wanted: { name: string; email: string; password: string }
): Promise<Account | Refusal> {
	if (code.trim().toUpperCase() !== setUpCode(house))
		return refuse('wrong-code', 'That is not the code printed where Pellum was started.', 'code');
	return addAccount(house, { ...wanted, level: 'owner' }, () =>
		hasAccounts(house) ? refuse('set-up', 'Somebody has set this Pellum up just now. Sign in, or ask them.') : null
	);
}
