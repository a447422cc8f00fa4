import { chromium, type Browser } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { BROWSER } from '../../../e2e/kit/browser';
import { wordsByPoppler } from '../../../bench/words';
import { handbookHtml, paperTex, slidesHtml } from './plain';
import { OTHERS, type Asked, type OtherForm, type Part } from './forms';

/**
 * Sets the forms by programs that aren't ours and writes each as a PDF beside this file, with where its blanks are: the
 * browser tells that itself; the others set the form once more with a word in each blank, which is then looked for.
 * Wants Chromium, LibreOffice and pdflatex: `npx tsx demo/forms/others/make.ts [name …]`.
 */

/** Where a blank is: a point in it, in points from the page's top left. */
export interface Truth extends Asked {
	page: number;
	x: number;
	y: number;
}

const HERE = import.meta.dirname;
const slug = (name: string) => name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');
const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/** All blanks of a form in the order in which it is set. */
function asked(part: Part): Asked[] {
	if ('row' in part) return part.row;
	if ('below' in part) return part.below;
	if ('boxed' in part) return part.boxed;
	if ('bare' in part) return part.bare;
	if ('letters' in part) return [part.letters];
	if ('table' in part)
		return part.table.rows.flatMap((row) =>
			row.map((_, c): Asked => ({ label: part.table.head[c]!, kind: part.table.kinds[c]! }))
		);
	if ('ticks' in part)
		return part.ticks.options.map((): Asked => ({
			label: part.ticks.question,
			kind: part.ticks.either ? 'pick-one' : 'ticks'
		}));
	if ('blocks' in part) return part.blocks.flatMap((b) => b.lines.map((line) => ({ ...line, whose: b.whose })));
	return [];
}

/** As a browser has it: lines are borders, boxes are boxes. */
function html(form: OtherForm): string {
	let n = 0;
	const place = (style: string) => `<span data-n="${n++}" style="display:inline-block;${style}"></span>`;
	const line = (width: number) => place(`width:${width}pt;height:15pt;border-bottom:0.8pt solid #222`);
	const body = form.parts
		.map((part): string => {
			if ('heading' in part) return `<h1>${escaped(part.heading)}</h1>`;
			if ('prose' in part) return `<p>${escaped(part.prose)}</p>`;
			if ('row' in part)
				return `<p class=row>${part.row.map((a) => `${escaped(a.label)}: ${line(a.width ?? 150)}`).join(' &nbsp; ')}</p>`;
			if ('bare' in part)
				return part.bare
					.map((a) => `<p class=row>${escaped(a.label)}: ${place('width:150pt;height:13pt')}</p>`)
					.join('');
			if ('below' in part)
				return `<div class=pair>${part.below.map((a) => `<div>${line(190)}<small>${escaped(a.label)}</small></div>`).join('')}</div>`;
			if ('boxed' in part)
				return `<div class=boxes>${part.boxed.map((a) => `<div style="flex:${a.width ?? 180}"><small>${escaped(a.label)}</small>${place('width:90%;height:17pt')}</div>`).join('')}</div>`;
			if ('letters' in part)
				return `<p class=row>${escaped(part.letters.label)}: <span class=letters data-n="${n++}">${'<i></i>'.repeat(part.boxes)}</span></p>`;
			if ('table' in part) {
				const head = part.table.head.map((h) => `<th>${escaped(h)}</th>`).join('');
				const rows = part.table.rows
					.map((row) => `<tr>${row.map(() => `<td>${place('width:90%;height:14pt')}</td>`).join('')}</tr>`)
					.join('');
				return `<table><tr>${head}</tr>${rows}</table>`;
			}
			if ('ticks' in part)
				return `<p class=row>${escaped(part.ticks.question)} &nbsp; ${part.ticks.options.map((o) => `${place('width:9pt;height:9pt;border:0.8pt solid #222;vertical-align:-1pt')} ${escaped(o)}`).join(' &nbsp;&nbsp;&nbsp; ')}</p>`;
			return `<div class=pair>${part.blocks
				.map(
					(b) =>
						`<div><b>${escaped(b.head)}</b>${b.lines.map((a) => `<p class=row style="margin-top:14pt">${escaped(a.label)}: ${line(a.kind === 'signing-date' ? 90 : 140)}</p>`).join('')}</div>`
				)
				.join('')}</div>`;
		})
		.join('\n');
	return `<meta charset=utf-8><style>@page{size:A4;margin:0}body{margin:0;padding:50pt;width:495pt;font:10.5pt "Liberation Sans"}h1{font-size:16pt}.row{margin:9pt 0}.pair{display:flex;gap:30pt;margin:22pt 0}.pair>div{flex:1}.pair small{display:block}.boxes{display:flex;margin:10pt 0}.boxes>div{border:0.8pt solid #444;padding:2pt 4pt;margin-left:-0.8pt}.boxes small{display:block;font-size:7pt}table{border-collapse:collapse;width:100%}th,td{border:0.8pt solid #444;text-align:left;padding:3pt}.letters{display:inline-flex;vertical-align:-4pt}.letters i{width:11pt;height:14pt;border:0.8pt solid #444;margin-left:-0.8pt}</style>${body}`;
}

async function byBrowser(form: OtherForm, browser: Browser): Promise<{ pdf: Buffer; truth: Truth[] }> {
	const page = await browser.newPage({ viewport: { width: 794, height: 1123 } });
	await page.emulateMedia({ media: 'print' });
	await page.setContent(html(form));
	const places = (await page.evaluate(
		`[...document.querySelectorAll('[data-n]')].map((e) => { const b = e.getBoundingClientRect(); return { x: b.left + b.width / 2, y: b.top + b.height / 2 }; })`
	)) as { x: number; y: number }[];
	const pdf = Buffer.from(await page.pdf({ preferCSSPageSize: true, printBackground: true }));
	await page.close();
	const truth = form.parts.flatMap(asked).map((one, i): Truth => {
		const y = places[i]!.y * 0.75;
		return { ...one, page: Math.floor(y / 841.9), x: places[i]!.x * 0.75, y: y % 841.9 };
	});
	return { pdf, truth };
}

/** As an office program has it: lines are runs of underscores, everything stands in tables. */
function officeHtml(form: OtherForm, mark: (n: number) => string): string {
	let n = 0;
	const run = (width: number) => {
		const letters = Math.round(width / 5.5);
		const word = mark(n++);
		return word === '' ? '_'.repeat(letters) : word + '_'.repeat(Math.max(0, letters - word.length));
	};
	const cell = () => mark(n++) || '&nbsp;';
	const body = form.parts
		.map((part): string => {
			if ('heading' in part) return `<h1>${escaped(part.heading)}</h1>`;
			if ('prose' in part) return `<p>${escaped(part.prose)}</p>`;
			if ('row' in part)
				return `<p>${part.row.map((a) => `${escaped(a.label)}: ${run(a.width ?? 130)}`).join(' &nbsp; ')}</p>`;
			if ('below' in part)
				return `<table width=100% border=0><tr>${part.below.map(() => `<td>${run(170)}</td>`).join('')}</tr><tr>${part.below.map((a) => `<td><font size=1>${escaped(a.label)}</font></td>`).join('')}</tr></table>`;
			if ('table' in part)
				return `<table border=1 width=100% cellspacing=0 cellpadding=4><tr>${part.table.head.map((h) => `<td><b>${escaped(h)}</b></td>`).join('')}</tr>${part.table.rows.map((row) => `<tr>${row.map(() => `<td>${cell()}</td>`).join('')}</tr>`).join('')}</table>`;
			if ('ticks' in part)
				return `<p>${escaped(part.ticks.question)} &nbsp; ${part.ticks.options.map((o) => `${mark(n++) || '☐'} ${escaped(o)}`).join(' &nbsp; &nbsp; ')}</p>`;
			if ('blocks' in part) {
				const rows = part.blocks[0]!.lines.length;
				const texts = part.blocks.map((b) =>
					b.lines.map((a) => `${escaped(a.label)}: ${run(a.kind === 'signing-date' ? 80 : 120)}`)
				);
				return `<table width=100% border=0 cellpadding=6><tr>${part.blocks.map((b) => `<td><b>${escaped(b.head)}</b></td>`).join('')}</tr>${Array.from({ length: rows }, (_, r) => `<tr>${texts.map((lines) => `<td>${lines[r]}</td>`).join('')}</tr>`).join('')}</table>`;
			}
			return '';
		})
		.join('\n');
	return `<html><head><meta charset="utf-8"></head><body style="font-family:'Liberation Serif';font-size:11pt">${body}</body></html>`;
}

function byOffice(source: string, folder: string): Buffer {
	writeFileSync(path.join(folder, 'form.html'), source);
	const run = (...args: string[]) =>
		execFileSync('soffice', [`-env:UserInstallation=file://${folder}/profile`, '--headless', ...args], {
			cwd: folder,
			stdio: 'ignore'
		});
	run('--infilter=HTML (StarWriter)', '--convert-to', 'odt:writer8', 'form.html');
	run('--convert-to', 'pdf', 'form.odt');
	return readFileSync(path.join(folder, 'form.pdf'));
}

const tex = (text: string) =>
	text
		.replaceAll('&', '\\&')
		.replaceAll('%', '\\%')
		.replaceAll('£', '\\pounds{}')
		.replaceAll('€', 'EUR')
		.replaceAll('’', "'");

/** As TeX has it: rules, tabulars, minipages. */
function texSource(form: OtherForm, mark: (n: number) => string): string {
	let n = 0;
	const rule = (width: number) => {
		const word = mark(n++);
		return word === '' ? `\\rule{${width}pt}{0.4pt}` : `\\makebox[${width}pt][l]{\\raisebox{0pt}[0.4pt][0pt]{${word}}}`;
	};
	const body = form.parts
		.map((part): string => {
			if ('heading' in part) return `\\section*{${tex(part.heading)}}`;
			if ('prose' in part) return tex(part.prose);
			if ('row' in part)
				return part.row.map((a) => `${tex(a.label)}: ${rule(Math.min(150, a.width ?? 120))}`).join(' \\quad ');
			if ('below' in part)
				return `\\vspace{18pt}${part.below.map((a) => `\\begin{minipage}{0.45\\textwidth}${rule(160)}\\\\{\\footnotesize ${tex(a.label)}}\\end{minipage}`).join('\\quad')}`;
			if ('table' in part)
				return `\\begin{tabular}{|${part.table.head.map(() => 'p{110pt}|').join('')}}\\hline ${part.table.head.map(tex).join(' & ')}\\\\\\hline ${part.table.rows.map((row) => row.map(() => `\\rule{0pt}{13pt}${mark(n++)}`).join(' & ')).join('\\\\\\hline ')}\\\\\\hline\\end{tabular}`;
			if ('ticks' in part)
				return `${tex(part.ticks.question)} \\quad ${part.ticks.options.map((o) => `\\fbox{\\makebox[4pt][l]{\\rule{0pt}{4pt}${mark(n++) && `\\tiny ${mark(n - 1)}`}}} ${tex(o)}`).join(' \\quad ')}`;
			if ('blocks' in part)
				return part.blocks
					.map(
						(b) =>
							`\\begin{minipage}[t]{0.48\\textwidth}\\textbf{${tex(b.head)}}\\\\[16pt]${b.lines.map((a) => `${tex(a.label)}: ${rule(a.kind === 'signing-date' ? 70 : 110)}`).join('\\\\[14pt]')}\\end{minipage}`
					)
					.join('\\hfill ');
			return '';
		})
		.join('\n\n\\vspace{8pt}\\noindent ');
	return `\\documentclass[a4paper,11pt]{article}\\usepackage[utf8]{inputenc}\\pagestyle{empty}\\setlength{\\parindent}{0pt}\\begin{document}\n${body}\n\\end{document}`;
}

function byTex(source: string, folder: string): Buffer {
	writeFileSync(path.join(folder, 'form.tex'), source);
	execFileSync('pdflatex', ['-interaction=batchmode', 'form.tex'], { cwd: folder, stdio: 'ignore' });
	return readFileSync(path.join(folder, 'form.pdf'));
}

/** Set twice: empty, and with a word in each blank, which tells where it is. */
function twice(form: OtherForm, folder: string): { pdf: Buffer; truth: Truth[] } {
	const set = (mark: (n: number) => string) =>
		form.producer === 'tex' ? byTex(texSource(form, mark), folder) : byOffice(officeHtml(form, mark), folder);
	const marked = path.join(folder, 'marked.pdf');
	writeFileSync(
		marked,
		set((n) => `Q${n}Q`)
	);
	const found = new Map<number, { page: number; x: number; y: number }>();
	wordsByPoppler(marked).forEach((words, page) =>
		words.forEach(({ text, x, y }) => {
			const n = /Q(\d+)Q/.exec(text)?.[1];
			if (n) found.set(Number(n), { page, x, y });
		})
	);
	const truth = form.parts.flatMap(asked).map((one, n): Truth => {
		const at = found.get(n);
		if (!at) throw new Error(`blank ${n} of “${form.name}” was not found again`);
		return { ...one, ...at };
	});
	return { pdf: set(() => ''), truth };
}

const wanted = process.argv.slice(2);
const browser = await chromium.launch(BROWSER);
for (const form of OTHERS.filter((f) => wanted.length === 0 || wanted.includes(f.name))) {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-form-'));
	const { pdf, truth } = form.producer === 'browser' ? await byBrowser(form, browser) : twice(form, folder);
	writeFileSync(path.join(HERE, `${slug(form.name)}.pdf`), pdf);
	writeFileSync(path.join(HERE, `${slug(form.name)}.json`), `${JSON.stringify(truth, null, '\t')}\n`);
	rmSync(folder, { recursive: true });
	console.log(form.name, pdf.length, truth.length);
}
if (wanted.length === 0 || wanted.includes('plain')) {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-plain-'));
	const page = await browser.newPage();
	await page.setContent(slidesHtml(14));
	const slides = await page.pdf({ preferCSSPageSize: true, printBackground: true });
	for (const [name, pdf] of [
		['plain-slides', slides],
		['plain-handbook', byOffice(handbookHtml(12), folder)],
		['plain-paper', byTex(paperTex(12), folder)]
	] as const)
		writeFileSync(path.join(HERE, `${name}.pdf`), pdf);
	rmSync(folder, { recursive: true });
}
await browser.close();
