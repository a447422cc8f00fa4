// Pushes a sheet for a template, each night the newer one: nightly-sheet.mjs TEMPLATE FILE
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { ask, templateCalled } from './pellum.mjs';

const [title, file] = process.argv.slice(2);
const sheet = readFileSync(file);
// which batch this list is, from the first night on
const memory = `${file}.batch`;

let batch;
if (existsSync(memory)) batch = await ask('PUT', `/batches/${readFileSync(memory, 'utf8')}/sheet`, { file: sheet });
else {
	const { id } = await templateCalled(title);
	const name = encodeURIComponent(path.basename(file));
	batch = await ask('POST', `/batches?template=${id}&name=${name}`, { file: sheet });
	writeFileSync(memory, batch.id);
}
for (const { line, says } of (await ask('GET', `/batches/${batch.id}/rows?show=faulty`)).items)
	console.log(`Line ${line}: ${says}`);
if (batch.counts.ready === 0) console.log('Nobody new.');
else {
	console.log(`${batch.counts.ready} new.`);
	batch = await ask('POST', `/batches/${batch.id}/run`);
	while (batch.going !== 'rests') {
		await new Promise((go) => setTimeout(go, 500));
		batch = await ask('GET', `/batches/${batch.id}`);
	}
}
const { name, ext } = path.parse(file);
const back = path.join(path.dirname(file), `${name} back${ext}`);
writeFileSync(back, await ask('GET', `/batches/${batch.id}/sheet`));
console.log(`${batch.counts.gone} gone, ${batch.counts.have} have theirs. The sheet is in ${back}.`);
