import { Marked } from 'marked';

/** Only these lead somewhere: what a page's text may link to. */
const LEADS = /^(https?:\/\/|mailto:)/i;

const marked = new Marked({
	gfm: true,
	breaks: true,
	renderer: {
		link({ href, tokens }) {
			const inner = this.parser.parseInline(tokens);
			return LEADS.test(href)
				? `<a href="${href.replaceAll('"', '%22')}" rel="noreferrer" target="_blank">${inner}</a>`
				: inner;
		},
		image: () => ''
	}
});

/** A text of the office as simple HTML: bold, lists, links. What would be HTML in it stands there as it was typed. */
export function formatted(text: string): string {
	const plain = text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
	return text.trim() === '' ? '' : marked.parse(plain, { async: false });
}
