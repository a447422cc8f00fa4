import type { Account, Session } from './lib/server/accounts';

declare global {
	namespace App {
		interface Locals {
			/** names this request in the log and on the error page */
			request: string;
			/** nothing could be written, for the while */
			failed?: 'disk' | 'busy';
			account: Account | null;
			/** the session of whoever is signed in, or is about to be: half of one has no account yet */
			session: Session | null;
			/** the session's token, '' where there is none */
			token: string;
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
			/** by which whoever runs this Pellum finds it in the log */
			request?: string;
		}
	}
}
