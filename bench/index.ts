import { writeFileSync } from 'node:fs';
import { benchDesk } from './desk';
import { benchFitting } from './fitting';
import { benchLog } from './log';
import { table, type Figure } from './measure';
import { benchPlacing } from './placing';
import { benchPress, benchScan } from './press';
import { benchSigning } from './signing';

/** npm run bench [-- --json FILE]: prints the table; exit 1 when a goal is missed. */
const figures: Figure[] = [];
for (const part of [benchPress, benchScan, benchLog, benchDesk, benchFitting, benchPlacing, benchSigning])
	figures.push(...(await part()));
console.log(table(figures));
const json = process.argv.indexOf('--json');
if (json > 0 && process.argv[json + 1]) writeFileSync(process.argv[json + 1]!, JSON.stringify(figures, null, '\t'));
process.exit(figures.some((f) => f.holds === false) ? 1 : 0);
