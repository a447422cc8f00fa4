import type { Account } from './lib/server/accounts';

declare global {
	namespace App {
		interface Locals {
			account: Account | null;
			/** network address and device, for the record and for limits */
			from: { address: string; device: string };
		}
		interface Error {
			message: string;
			code?: string;
		}
	}
}
