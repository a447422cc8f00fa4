import { isBusy, isFull } from '../db';
import type { House } from '../house';
import { count } from '../limits';
import { note, type Doer } from './index';

/** Tells the record that somebody was refused what their account may not do; of many in a row the first twenty. */
export async function tellRefused(
	house: House,
	{ account, from }: { account: Doer['account']; from: { address: string } },
	to: string
): Promise<void> {
	if (!(await count('refused', account?.id ?? from.address))) return;
	try {
		note(house, { account, address: from.address }, { type: 'AccessRefused', to });
	} catch (error) {
		// the refusal stands without its line
		if (!isBusy(error) && !isFull(error)) throw error;
	}
}
