import type { Identity } from '../../press';

/** Authorities between a certificate and its root, each with its list, as a row of the keys has them. */

type Between = NonNullable<Identity['between']>;

export const betweenOf = (text: string): Between =>
	(JSON.parse(text) as { certificate: string; crl: string }[]).map(({ certificate, crl }) => ({
		certificate: Buffer.from(certificate, 'base64'),
		crl: Buffer.from(crl, 'base64')
	}));

export const betweenText = ({ between = [] }: Pick<Identity, 'between'>): string =>
	JSON.stringify(
		between.map(({ certificate, crl }) => ({
			certificate: Buffer.from(certificate).toString('base64'),
			crl: Buffer.from(crl).toString('base64')
		}))
	);
