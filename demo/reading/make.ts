import { chromium } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { BROWSER } from '../../e2e/kit/browser';

/**
 * Makes documents by programs that aren't ours, to hold our reading of words against. Those whose scripts other readers
 * read worse than we do have their own words beside them. Wants Chromium, LibreOffice, Ghostscript, qpdf, pdftoppm and
 * tesseract: `npx tsx demo/reading/make.ts`. What it makes is kept in the repository.
 */
const HERE = import.meta.dirname;
const OTHERS = path.resolve(HERE, '../forms/others');
const FONTS = path.resolve('node_modules/@expo-google-fonts');
const folder = mkdtempSync(path.join(tmpdir(), 'pellum-reading-'));
const run = (program: string, ...args: string[]) => execFileSync(program, args, { cwd: folder, stdio: 'ignore' });
const out = (name: string) => path.join(HERE, name);

/** Sayings in several scripts; the words of each are its truth. */
const SAYINGS: { face: string; direction?: 'rtl'; style?: string; text: string; words?: string[] }[] = [
	{ face: 'LA', text: 'The hirer pays the fee before the first day of hire and leaves the hall as it was found.' },
	{ face: 'AR', direction: 'rtl', text: 'يوافق المستأجر على دفع المبلغ قبل اليوم الأول من الإيجار' },
	{ face: 'AR', direction: 'rtl', text: 'اتفاقية إعارة آلة موسيقية بين الفرقة والعازف في المدينة' },
	{ face: 'AR', direction: 'rtl', text: 'توقيع المستأجر والتاريخ' },
	{ face: 'HE', direction: 'rtl', text: 'השוכר מסכים לשלם את הסכום לפני היום הראשון' },
	{ face: 'HE', direction: 'rtl', text: 'הסכם השאלת כלי נגינה בין התזמורת לנגן' },
	{ face: 'LA', style: 'letter-spacing:0.14em', text: 'agreement on the loan of an instrument' },
	{ face: 'LA', style: 'letter-spacing:0.35em', text: 'SIGNATURE OF THE BORROWER' },
	{ face: 'SC', text: '承租人同意于租期第一天之前支付费用', words: ['承租人同意于租期第一天之前支付费用'] },
	{ face: 'JP', text: '借主は楽器を返却する', words: ['借主は楽器を返却する'] },
	{
		face: 'LA',
		style: 'transform:rotate(-90deg);transform-origin:left;position:absolute;left:560px;top:900px',
		text: 'Turned words beside the page'
	},
	{
		face: 'LA',
		style: 'transform:rotate(90deg);transform-origin:left;position:absolute;left:640px;top:500px',
		text: 'and others the other way'
	}
];

const face = (name: string, file: string) => `@font-face{font-family:${name};src:url(file://${FONTS}/${file})}`;
const html = `<meta charset=utf-8><style>${face('SC', 'noto-sans-sc/400Regular/NotoSansSC_400Regular.ttf')}${face('JP', 'noto-sans-jp/400Regular/NotoSansJP_400Regular.ttf')}${face('AR', 'noto-sans-arabic/400Regular/NotoSansArabic_400Regular.ttf')}${face('HE', 'noto-sans-hebrew/400Regular/NotoSansHebrew_400Regular.ttf')}${face('LA', 'noto-sans/400Regular/NotoSans_400Regular.ttf')}body{font-size:12pt}p{white-space:nowrap}</style>${SAYINGS.map(
	({ face: family, direction = 'ltr', style = '', text }) =>
		`<p dir=${direction} style="font-family:${family};${style}">${text}</p>`
).join('')}`;

const browser = await chromium.launch({
	...BROWSER,
	args: [...(BROWSER.args ?? []), '--allow-file-access-from-files']
});
const page = await browser.newPage();
writeFileSync(path.join(folder, 'scripts.html'), html);
await page.goto(`file://${folder}/scripts.html`);
writeFileSync(out('browser-scripts.pdf'), await page.pdf({ format: 'A4' }));
await browser.close();
writeFileSync(
	out('browser-scripts.json'),
	`${JSON.stringify(
		SAYINGS.flatMap(({ text, words }) => words ?? text.split(' ')),
		null,
		'\t'
	)}\n`
);

const rtl = SAYINGS.filter((one) => one.direction === 'rtl');
writeFileSync(
	path.join(folder, 'rtl.html'),
	`<html><head><meta charset="utf-8"></head><body>${rtl.map((one) => `<p dir="rtl" style="font-family:'Noto Sans ${one.face === 'AR' ? 'Arabic' : 'Hebrew'}'">${one.text}</p>`).join('')}</body></html>`
);
const office = (...args: string[]) =>
	run('soffice', `-env:UserInstallation=file://${folder}/profile`, '--headless', ...args);
office('--infilter=HTML (StarWriter)', '--convert-to', 'odt:writer8', 'rtl.html');
office('--convert-to', 'pdf', 'rtl.odt');
copyFileSync(path.join(folder, 'rtl.pdf'), out('office-right-to-left.pdf'));
writeFileSync(
	out('office-right-to-left.json'),
	`${JSON.stringify(
		rtl.flatMap((one) => one.text.split(' ')),
		null,
		'\t'
	)}\n`
);

run(
	'qpdf',
	path.join(OTHERS, 'plain-handbook.pdf'),
	'--pages',
	'.',
	'1-6',
	'--',
	'--rotate=+90:1,2',
	'--rotate=+180:3,4',
	'--rotate=+270:5,6',
	'turned.pdf'
);
copyFileSync(path.join(folder, 'turned.pdf'), out('office-turned.pdf'));
run(
	'gs',
	'-q',
	'-dNOPAUSE',
	'-dBATCH',
	'-sDEVICE=pdfwrite',
	'-dLastPage=8',
	`-sOutputFile=gs.pdf`,
	path.join(OTHERS, 'plain-paper.pdf')
);
copyFileSync(path.join(folder, 'gs.pdf'), out('ghostscript.pdf'));
run('pdftoppm', '-r', '150', '-gray', '-f', '2', '-l', '2', '-png', path.join(OTHERS, 'plain-handbook.pdf'), 'scan');
run('sh', '-c', 'tesseract scan-*.png scanner pdf');
copyFileSync(path.join(folder, 'scanner.pdf'), out('scanner.pdf'));
rmSync(folder, { recursive: true });
