import path from 'node:path';
import { restore } from '../src/lib/server/backup/restore';

/** npm run restore -- FILE: puts a backup in the place of the data folder's database, and tells what had happened since. */
const file = process.argv[2];
const folder = process.env['PELLUM_DATA'] ?? 'data/demo';
if (!file) {
	console.error('Name the backup: npm run restore -- FILE');
	process.exit(2);
}
try {
	const { packets, events, aside, since } = restore(path.resolve(file), folder, new Date());
	console.log(`${folder}: ${packets} packets, ${events} events restored.`);
	if (aside) console.log(`What was there before is set aside: ${aside}`);
	if (since.length > 0)
		console.log(`What had happened since, and is not in it:\n${since.map((say) => `  ${say}`).join('\n')}`);
} catch (error) {
	console.error(`Nothing was restored. ${(error as Error).message}`);
	process.exit(1);
}
