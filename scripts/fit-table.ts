import { chromium } from '@playwright/test';
import { EDITS } from '../demo/fits/edits';
import { judgeEdit, judgeInBrowser } from '../demo/fits/judge';
import { BROWSER } from '../e2e/kit/browser';

/** Prints the table of docs/fit.md: fields by edit, on documents tuned on, kept out, and set by a browser. */
const browser = await chromium.launch(BROWSER);
const all = { asked: 0, whole: 0, wrong: 0 };
for (const edit of EDITS) {
	const [tuned, kept] = [await judgeEdit(edit, true, [11]), await judgeEdit(edit, false, [11])];
	const set = edit.scanned ? null : await judgeInBrowser(edit, browser);
	const cells = [tuned, kept, set].flatMap<string | number>((one) =>
		one ? [one.sure, one.asked, one.listed, one.wrong] : ['', '', '', '']
	);
	console.log(`| ${edit.name} | ${cells.join(' | ')} |`);
	if (edit.scanned) continue;
	for (const one of [tuned, kept, set!]) {
		all.asked += one.asked;
		all.wrong += one.wrong;
		all.whole += one.sure + one.asked + one.listed + one.wrong;
	}
}
console.log(all);
await browser.close();
