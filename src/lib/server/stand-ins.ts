import { error } from '@sveltejs/kit';
import { house } from './index';

/** The stand-ins hold signers' links and keys: outside the demo only an owner sees them, and everybody else the error page. */
export function standInsFor({ account }: App.Locals): void {
	if (!house().config.demo && account?.level !== 'owner')
		error(403, { message: 'Outside the demo only an owner sees the stand-ins.' });
}
