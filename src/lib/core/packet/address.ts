/**
 * Whether the text can be an e-mail address that mail systems accept: the dot-atom form of RFC 5322 §3.4.1
 * with letters of any script (RFC 6531), a domain of two labels or more, 254 characters at most (RFC 5321 §4.5.3.1).
 */
export function isAddress(text: string): boolean {
	return (
		text.length <= 254 &&
		/^[^\s@<>()[\]\\,;:"\p{Cc}]{1,64}@(?=[^@]+\.[^@]+$)[\p{L}\p{N}-]+(\.[\p{L}\p{N}-]+)+$/u.test(text) &&
		!/^\.|\.\.|\.@/.test(text)
	);
}
