import type { Verdict } from './verify';

/** What was judged of a file, as a page of its own: without scripts, pictures or anything from elsewhere. */
export interface Report {
	/** what the file is called */
	name: string;
	/** SHA-256 of the file */
	digest: string;
	verdict: Verdict;
	/** whether this Pellum keeps exactly these bytes, or a copy that begins with them and has later time-stamps; null where nobody can say */
	kept: 'same' | 'later' | 'none' | null;
	/** against a root that somebody has kept: whether it agrees, and in a sentence how; null where none was given */
	root: { ok: boolean; say: string } | null;
	/** when it was judged, ISO 8601 */
	at: string;
}

/** In one word, as in the command's text. */
export const WORD = { genuine: 'Genuine', altered: 'Not genuine', unjudged: 'Cannot be judged' } as const;

const MEANS = {
	genuine: 'It was sealed by those whom this office trusts, and not a byte has been changed since.',
	altered: 'Something of it does not hold. Ask for another copy, and do not rely on this one.',
	unjudged: 'It is sound in itself, but what is said below can’t be answered here.'
} as const;

/** What is said of {@link Report.kept}. */
export const KEPT = {
	same: 'byte for byte a copy that this Pellum keeps',
	later: 'this Pellum keeps a copy that begins with exactly these bytes, and has later time-stamps: fetch that one',
	none: 'no copy of exactly these bytes is kept in this Pellum'
} as const;

const escaped = (text: string): string => text.replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`);

const row = (name: string, value: string | undefined): string =>
	value ? `<dt>${escaped(name)}</dt><dd>${escaped(value)}</dd>` : '';

/** Until when it can be proved by what is in it: in words. */
export const untilSaid = (until: string): string =>
	`${until.slice(0, 10)}, when what its last time-stamp rests on ends; before that it wants another one`;

export function reportPage({ name, digest, verdict, kept, root, at }: Report): string {
	const checks = [...verdict.checks, ...(root ? [{ name: 'root', ...root }] : [])]
		.map(({ ok, say }) => `<li class="${ok ? 'yes' : 'no'}"><b>${ok ? 'Yes' : 'No'}</b> ${escaped(say)}</li>`)
		.join('\n');
	const facts = [
		row('File', name),
		row('Sealed by', verdict.sealedBy),
		row('Notary', verdict.notary && `${verdict.notary.name}, ${verdict.notary.at}`),
		row('Sealed', verdict.sealedAt),
		row('As', verdict.reference),
		...(verdict.stamps ?? []).map((at) => row('Stamped again', at)),
		row('Provable until', verdict.until && untilSaid(verdict.until)),
		row('Kept here', kept === null ? undefined : KEPT[kept]),
		row('Root certificate', verdict.root),
		row('SHA-256', digest),
		row('Judged', at)
	].join('');
	const word = WORD[verdict.verdict];
	return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${word}: ${escaped(name)}</title>
<style>
:root { color-scheme: light dark; }
body { max-width: 44rem; margin: 2rem auto; padding: 0 1.25rem; font: 1rem/1.5 system-ui, sans-serif; }
h1 { font-size: 1.6rem; border-left: .4rem solid ${verdict.verdict === 'genuine' ? '#4a7c36' : '#a8402f'}; padding-left: .8rem; }
dl { display: grid; grid-template-columns: max-content 1fr; gap: .25rem 1.25rem; }
dt { opacity: .75; }
dd { margin: 0; overflow-wrap: anywhere; }
ol { padding-left: 1.4rem; }
li { margin: .3rem 0; }
</style>
</head>
<body>
<main>
<h1>${word}</h1>
<p>${MEANS[verdict.verdict]}</p>
<dl>${facts}</dl>
<h2>What was looked at</h2>
<ol>
${checks}
</ol>
</main>
</body>
</html>
`;
}
