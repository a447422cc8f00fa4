// Files the copies of each packet when it is sealed: file-copies.mjs FOLDER [PORT]
import { mkdirSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import path from 'node:path';
import { Webhook } from 'standardwebhooks';
import { ask } from './pellum.mjs';

const [folder, port = '8090'] = process.argv.slice(2);
const secret = new Webhook(process.env.PELLUM_SECRET);

async function file({ packet, reference }) {
	const place = path.join(folder, reference);
	mkdirSync(place, { recursive: true });
	for (const { what, name } of (await ask('GET', `/packets/${packet}/copies`)).items) {
		writeFileSync(path.join(place, path.basename(name)), await ask('GET', `/packets/${packet}/copies/${what}`));
		console.log(`Filed ${reference}: ${name}`);
	}
}

createServer((request, response) => {
	const parts = [];
	request.on('data', (part) => parts.push(part));
	request.on('end', async () => {
		let told;
		try {
			// it came from Pellum, unchanged, and not long ago
			told = secret.verify(Buffer.concat(parts), request.headers);
		} catch {
			return response.writeHead(401).end();
		}
		try {
			// the same message may come twice: what is filed already is filed over
			if (told.type === 'packet.sealed') await file(told.data);
			response.writeHead(204).end();
		} catch (error) {
			console.error(error.message);
			// it is told again later
			response.writeHead(503).end(error.message);
		}
	});
}).listen(Number(port), () => console.log(`Listening on port ${port}`));
