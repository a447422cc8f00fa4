/** A file's name as it came: without path, control characters and direction marks. */
export function bareName(fileName: string): string {
	return fileName
		.normalize('NFC')
		.replace(/^.*[\\/]/, '')
		.replace(/[\p{Cc}\p{Cf}]/gu, '')
		.trim();
}
