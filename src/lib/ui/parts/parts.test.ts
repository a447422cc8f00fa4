import { readdirSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

/** What stands outside the parts still, to come into them. Who is not on this list uses a part; who needs none leaves it. */
const STILL = {
	select: ['ui/signing/AnswerInput.svelte', 'ui/signing/SigningHead.svelte'],
	date: ['ui/signing/AnswerInput.svelte', 'ui/bench/SendSheet.svelte', 'ui/bench/WhenPart.svelte'],
	file: [
		'ui/signing/MarkPicture.svelte',
		'ui/signing/AnswerInput.svelte',
		'ui/templates/TemplatePreview.svelte',
		'ui/settings/Holidays.svelte',
		'ui/bench/KindSettings.svelte',
		'ui/bench/Papers.svelte',
		'routes/(office)/settings/+page.svelte',
		'routes/(office)/batches/[id]/+page.svelte'
	],
	package: [
		'ui/signing/AskDialog.svelte',
		'ui/frame/DialogBox.svelte',
		'ui/frame/Find.svelte',
		'ui/packet/ReasonDialog.svelte',
		'ui/bench/KeysDialog.svelte',
		'ui/bench/RepeatDialog.svelte',
		'ui/bench/CorrectSheet.svelte',
		'ui/bench/PasteDialog.svelte',
		'ui/bench/Rehearsal.svelte',
		'ui/bench/FitDialog.svelte',
		'ui/bench/PutInUse.svelte',
		'ui/bench/LooksDialog.svelte',
		'ui/bench/SendSheet.svelte',
		'routes/(office)/batches/[id]/+page.svelte'
	]
};

const SIGNS: Record<keyof typeof STILL, RegExp> = {
	select: /<select\b/,
	date: /type="(date|time|datetime-local)"|'date' \? 'date'/,
	file: /type="file"/,
	package: /from '(bits-ui|@tanstack\/|svelte-dnd-action|svelte-sonner|@internationalized\/)/
};

const files = readdirSync('src', { recursive: true, encoding: 'utf8' })
	.filter((file) => file.endsWith('.svelte') && !file.startsWith('lib/ui/parts/'))
	.map((file) => ({ name: file.replace(/^lib\//, ''), text: readFileSync(`src/${file}`, 'utf8') }));

it.each(Object.keys(SIGNS) as (keyof typeof STILL)[])('no screen has a bare %s but those that are known', (what) => {
	const found = files.filter(({ text }) => SIGNS[what].test(text)).map(({ name }) => name);
	expect(found.sort()).toEqual([...STILL[what]].sort());
});
