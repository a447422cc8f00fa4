/** A size in bytes as people read it. */
export function size(bytes: number): string {
	if (bytes < 1000) return `${bytes} B`;
	if (bytes < 1_000_000) return `${Math.round(bytes / 1000)} kB`;
	return `${(bytes / 1_000_000).toLocaleString('en-GB', { maximumFractionDigits: 1 })} MB`;
}
