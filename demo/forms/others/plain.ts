import { chance, prose, sentence } from '../../fits/documents';

/** Pages that are no forms, for three programs to set: running text, full tables, lists, slides. Made up, and always the same. */

const paragraph = (random: () => number, sentences: number): string => {
	const part = prose(random, sentences);
	return part.is === 'text' ? part.text : '';
};

const row = (random: () => number, n: number): string[] => [
	String(n),
	sentence(random).split(' ').slice(0, 3).join(' '),
	['Staunton', 'Oldmere', 'Brindlevale', 'Corn Exchange'][Math.floor(random() * 4)]!,
	`${Math.floor(random() * 900) + 40}.${String(Math.floor(random() * 100)).padStart(2, '0')}`
];

/** A handbook of so many chapters, with tables, lists, notes and footnotes, as HTML. */
export function handbookHtml(chapters: number): string {
	const random = chance(1);
	const chapter = (n: number) => `<h1>${n}. ${sentence(random).split(' ').slice(0, 4).join(' ')}</h1>
<p>${paragraph(random, 7)}</p><p>${paragraph(random, 6)}</p>
<p><b>Note:</b> ${paragraph(random, 2)}</p>
<ol>${Array.from({ length: 6 }, () => `<li>${sentence(random)}</li>`).join('')}</ol>
<table border="1" cellspacing="0" cellpadding="4" width="100%"><tr><td bgcolor="#dddddd"><b>No.</b></td><td bgcolor="#dddddd"><b>What</b></td><td bgcolor="#dddddd"><b>Where</b></td><td bgcolor="#dddddd"><b>GBP</b></td></tr>
${Array.from(
	{ length: 9 },
	(_, i) =>
		`<tr>${row(random, i + 1)
			.map((cell) => `<td>${cell}</td>`)
			.join('')}</tr>`
).join('\n')}</table>
<p>${paragraph(random, 8)}</p><hr><p><font size="1">${n} ${sentence(random)} ${sentence(random)}</font></p>
<p><b>Hirer:</b> ${sentence(random)}</p><p><b>Hall:</b> ${sentence(random)}</p><p>${paragraph(random, 9)}</p>`;
	return `<html><head><meta charset="utf-8"><style>@page{size:A4;margin:20mm}h1{page-break-before:always;font-size:15pt}body{font:11pt "Liberation Serif"}</style></head><body>${Array.from({ length: chapters }, (_, i) => chapter(i + 1)).join('\n')}</body></html>`;
}

/** So many slides: few words, rules under headings, boxes with words in them, a drawing of lines. */
export function slidesHtml(slides: number): string {
	const random = chance(2);
	const slide = (n: number) => `<section><h1>${sentence(random).split(' ').slice(0, 5).join(' ')}</h1><hr>
<ul>${Array.from({ length: 4 }, () => `<li>${sentence(random)}</li>`).join('')}</ul>
<div class=boxes>${Array.from({ length: 3 }, () => `<div>${sentence(random).split(' ').slice(0, 3).join(' ')}</div>`).join('')}</div>
<svg width=300 height=90><line x1=0 y1=80 x2=300 y2=80 stroke=black /><line x1=10 y1=0 x2=10 y2=90 stroke=black /><polyline points="10,70 80,50 150,60 290,10" fill=none stroke=black /></svg><footer>Brindlevale Touring Orchestra · ${n}</footer></section>`;
	return `<meta charset=utf-8><style>@page{size:297mm 167mm;margin:0}body{margin:0;font:18pt "Liberation Sans"}section{height:166mm;padding:12mm;box-sizing:border-box;page-break-after:always;position:relative}footer{position:absolute;bottom:6mm;right:10mm;font-size:10pt}.boxes{display:flex;gap:10mm}.boxes div{border:1pt solid;padding:4mm;font-size:13pt}</style>${Array.from({ length: slides }, (_, i) => slide(i + 1)).join('')}`;
}

/** A paper of so many sections with formulas' look, tables and a list of contents, as TeX. */
export function paperTex(sections: number): string {
	const random = chance(3);
	const section = (n: number) => `\\section{${sentence(random).split(' ').slice(0, 4).join(' ')}}
${paragraph(random, 8)}\\footnote{${sentence(random)}}

${paragraph(random, 7)}

\\begin{tabular}{lrr}\\hline Place & Seats & GBP \\\\\\hline ${Array.from({ length: 6 }, (_, i) => `${row(random, i)[2]} & ${100 + i * 20} & ${row(random, i)[3]}`).join('\\\\ ')}\\\\\\hline\\end{tabular}

${paragraph(random, 9)} $f(x) = \\frac{a}{b} + c_${n % 10}$

\\begin{enumerate}${Array.from({ length: 5 }, () => `\\item ${sentence(random)}`).join(' ')}\\end{enumerate}
\\newpage`;
	return `\\documentclass[a4paper,11pt]{article}\\begin{document}\\tableofcontents\\newpage ${Array.from({ length: sections }, (_, i) => section(i + 1)).join('\n')}\\end{document}`;
}
