import { parsePhoneNumberFromString } from 'libphonenumber-js/min';

/** Whether the text can be a telephone number with its country code, in any usual way of writing (ITU-T E.164). */
export function isPhone(text: string): boolean {
	return parsePhoneNumberFromString(text)?.isPossible() === true;
}
