import {
	startAuthentication,
	startRegistration,
	type PublicKeyCredentialCreationOptionsJSON,
	type PublicKeyCredentialRequestOptionsJSON
} from '@simplewebauthn/browser';
import { post } from '../post';

/** Asks the device for a passkey: the server's question, the device's answer, the server's word on it. */
type Said<T> = T | { wrong: string };

const CALLED_OFF = { wrong: 'It was called off, or the device knows no passkey for this. Nothing was done.' };

/** Shows a passkey to `url`. Gives where to go on. */
export async function showPasskey(url: string, to: string): Promise<Said<{ to: string }>> {
	const options = await post<PublicKeyCredentialRequestOptionsJSON>(url, {}, '');
	if ('wrong' in options) return options;
	const response = await startAuthentication({ optionsJSON: options }).catch(() => null);
	return response ? post<{ to: string }>(url, { response, to }, '') : CALLED_OFF;
}

/** Makes a passkey on this device and has it kept under a name. */
export async function makePasskey(name: string): Promise<Said<{ id: string }>> {
	const options = await post<PublicKeyCredentialCreationOptionsJSON>('/account/passkey', {}, '');
	if ('wrong' in options) return options;
	const response = await startRegistration({ optionsJSON: options }).catch(() => null);
	return response ? post<{ id: string }>('/account/passkey', { response, name }, '') : CALLED_OFF;
}
