import { X509Certificate } from 'node:crypto';
import { commonName, fingerprint, organisationIn } from '../../press';
import type { House } from '../house';
import { isAside, nameInWords } from './names';
import { endOf } from './proving';
import type { Withdrawn } from './withdrawing';

/** A key as a list shows it. */
export interface KeyRow {
	name: string;
	/** what it is for, in words */
	use: string;
	/** whose it is */
	of: string;
	issuedBy: string;
	own: boolean;
	/** whether it signs now */
	now: boolean;
	/** ISO 8601 */
	until: string;
	/** SHA-256 of the certificate */
	fingerprint: string;
	/** it was restored without its private key, and only serves to check */
	bare: boolean;
	withdrawn: Withdrawn | null;
}

/** All keys that seal, stamp or notarise, or did: those in use first. */
export function keyRows({ db }: House): KeyRow[] {
	return db
		.prepare<[], { name: string; certificate: Buffer; own: 0 | 1; withdrawn: string | null; bare: 0 | 1 }>(
			'SELECT name, certificate, own, withdrawn, length(locked_key) = 0 AS bare FROM keys ORDER BY name'
		)
		.all()
		.map(({ name, certificate, own, withdrawn, bare }) => ({
			name,
			use: nameInWords(name),
			of: organisationIn(certificate) || 'nobody by name',
			issuedBy: commonName(new X509Certificate(certificate).issuer),
			own: own === 1,
			now: !isAside(name),
			until: new Date(endOf({ certificate })).toISOString(),
			fingerprint: fingerprint(certificate),
			bare: bare === 1,
			withdrawn: withdrawn === null ? null : (JSON.parse(withdrawn) as Withdrawn)
		}))
		.sort((a, b) => Number(b.now) - Number(a.now));
}
