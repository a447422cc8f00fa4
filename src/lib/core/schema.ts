import { Type, type StringOptions, type TString } from '@sinclair/typebox';

/**
 * A text of one line, such as a name, a title or an address: the border makes a space of what breaks lines. `line` is a word
 * of our own in schemas; whoever checks without it loses nothing but that.
 */
export function Line(maxLength: number, more: StringOptions = {}): TString {
	return Type.String({ maxLength, line: true, ...more });
}

/** A key is a name in rules and data, so it is a plain one. */
export const KEY_PATTERN = '^[A-Za-z][A-Za-z0-9_]{0,59}$';
