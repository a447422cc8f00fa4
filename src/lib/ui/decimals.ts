import { decimal } from '../core/rule';

/** A bound as somebody types it, with comma or point, in plain decimal notation; '' for none, null where it is no number. */
export function typedDecimal(text: string): string | null {
	const plain = text.trim().replace(',', '.');
	return plain === '' || decimal(plain) ? plain : null;
}
