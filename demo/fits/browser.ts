import type { Browser } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Made, Part, Place } from './set';

/**
 * Sets a document by a browser, twice: empty, and with a word in each blank, which Poppler then finds: so both where the
 * fields belong and how the page is drawn come from programs that aren't ours.
 */
export async function setByBrowser(
	made: Made,
	browser: Browser
): Promise<{ bytes: Uint8Array; places: Map<string, Place> }> {
	const page = await browser.newPage();
	const keys: string[] = [];
	const print = async (mark: (key: string) => string) => {
		await page.setContent(html(made, mark));
		return new Uint8Array(await page.pdf({ preferCSSPageSize: true, printBackground: true }));
	};
	const bytes = await print(() => '');
	const marked = await print((key) => `Q${keys.push(key) - 1}Q`);
	await page.close();
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-fit-'));
	const file = path.join(folder, 'marked.pdf');
	writeFileSync(file, marked);
	const words = execFileSync('pdftotext', ['-bbox', file, '-']).toString().split('<page ').slice(1);
	rmSync(folder, { recursive: true });
	const places = new Map<string, Place>();
	words.forEach((text, number) => {
		for (const [, x, , , bottom, n] of text.matchAll(
			/xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">Q(\d+)Q</g
		))
			places.set(keys[Number(n)]!, {
				page: number,
				rect: { x: Number(x), y: made.paper[1] - Number(bottom), width: WIDTH, height: 13 }
			});
	});
	return { bytes, places };
}

/** How wide a field is taken to be: less than any blank. */
const WIDTH = 48;
const safe = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

function html(made: Made, mark: (key: string) => string): string {
	const blank = (key: string, width: number) =>
		`<span style="display:inline-block;width:${width}pt;height:${made.size * 1.2}pt;border-bottom:0.7pt solid;overflow:hidden;vertical-align:bottom">${mark(key)}</span>`;
	const part = (one: Part): string => {
		switch (one.is) {
			case 'heading':
				return `<h2>${safe(one.text)}</h2>`;
			case 'text':
				return `<p>${safe(one.text)}</p>`;
			case 'page':
				return '<div style="break-after:page"></div>';
			case 'picture':
				return `<div style="height:${one.height}pt;width:180pt;background:#ccd"></div>`;
			case 'line': {
				const words = one.label.split(' ');
				const half = Math.ceil(words.length / 2);
				const label = one.broken
					? `${words.slice(0, half).join(' ')}<br>${words.slice(half).join(' ')}`
					: safe(one.label);
				return `<p class=row>${label} ${blank(one.key, one.width ?? 220)}</p>`;
			}
			case 'pair':
				return `<p class=row>${one.items.map((item) => `${safe(item.label)} ${blank(item.key, item.width)}`).join(' &nbsp; ')}</p>`;
			case 'ticks':
				return one.items
					.map(
						(item) =>
							`<p class=row><span style="display:inline-block;width:9pt;height:9pt;border:0.7pt solid;overflow:visible;font-size:4pt">${mark(item.key)}</span> &nbsp;${safe(item.label)}</p>`
					)
					.join('');
			case 'table':
				return `<table class="${one.open ? 'open' : ''}">${[
					{ cells: one.head, keys: one.head.map(() => null) },
					...one.rows
				]
					.map(
						(row) =>
							`<tr>${row.cells.map((cell, c) => `<td style="width:${one.shares[c]! * 10}%">${safe(cell) || (row.keys[c] ? mark(row.keys[c]!) : '')}&nbsp;</td>`).join('')}</tr>`
					)
					.join('')}</table>`;
			case 'signatures':
				return `<div class=blocks>${one.blocks
					.map(
						(block) =>
							`<div><b>${safe(block.label)}</b>${['Signature', 'Name in full', 'Date']
								.map(
									(what, i) =>
										`<p>${blank(`${block.key}.${['signature', 'name', 'date'][i]}`, 180)}<br><small>${what}</small></p>`
								)
								.join('')}</div>`
					)
					.join('')}</div>`;
		}
	};
	const foot = made.foot ? `<footer>${safe(made.foot.text)}</footer>` : '';
	const across = made.watermark
		? `<div style="position:fixed;top:300pt;left:60pt;font-size:120pt;color:#ddd;transform:rotate(-50deg);z-index:-1">${made.watermark}</div>`
		: '';
	return `<meta charset=utf-8><style>@page{size:${made.paper[0]}pt ${made.paper[1]}pt;margin:62pt ${made.margin}pt 70pt}body{margin:0;font:${made.size}pt/1.35 "Liberation Serif"}h2{font-size:1.2em}.row{margin:9pt 0}table{width:100%;border-collapse:collapse}td{border:0.6pt solid;padding:2pt 3pt;height:${made.size * 1.6}pt}.open td{border-width:0.6pt 0}.blocks{display:flex;gap:30pt;break-inside:avoid}.blocks>div{flex:1}footer{position:fixed;bottom:-40pt;font-size:8pt}</style>${foot}${across}${made.parts.map(part).join('\n')}`;
}
