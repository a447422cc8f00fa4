import { Type, type StringOptions, type TString } from '@sinclair/typebox';

/**
 * A text of one line, such as a name, a title or an address: the border makes a space of what breaks lines. `line` is a word
 * of our own in schemas; whoever checks without it loses nothing but that.
 */
export function Line(maxLength: number, more: StringOptions = {}): TString {
	return Type.String({ maxLength, line: true, ...more });
}
