import type { Account } from './lib/server/accounts';

declare global {
	namespace App {
		interface Locals {
			/** nothing could be written, for the while */
			failed?: 'disk' | 'busy';
			account: Account | null;
			/** network address and device, for the record and for limits */
			from: { address: string; device: string };
			/** what this browser got when somebody proved who they are; '' where it has nothing */
			pass: string;
			/** the language chosen on a signing page, and what the browser asks for, best first */
			language: { chosen: string | null; accepted: string[] };
		}
		interface Error {
			message: string;
			code?: string;
		}
	}
}
