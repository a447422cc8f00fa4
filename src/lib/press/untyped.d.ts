/** Packages that come without types, as far as the press uses them. */
declare module 'pdfmake' {
	const pdfmake: {
		setFonts(fonts: Record<string, Record<'normal' | 'bold' | 'italics' | 'bolditalics', string>>): void;
		setUrlAccessPolicy(may: (url: string) => boolean): void;
		setLocalAccessPolicy(may: (path: string) => boolean): void;
		createPdf(document: Record<string, unknown>): { getBuffer(): Promise<Buffer> };
	};
	export default pdfmake;
}
declare module 'html-to-pdfmake' {
	export default function htmlToPdfmake(
		html: string,
		options: { window: unknown; defaultStyles?: Record<string, object> }
	): unknown;
}
