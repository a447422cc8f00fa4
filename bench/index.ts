import { writeFileSync } from 'node:fs';
import { benchBatches } from './batches';
import { benchDesk } from './desk';
import { mayWriteDoc, writeDoc } from './doc';
import { benchFitting } from './fitting';
import { benchLists } from './lists';
import { benchLog } from './log';
import { table, type Figure } from './measure';
import { benchPace } from './pace';
import { benchPlacing } from './placing';
import { benchPress, benchScan } from './press';
import { benchSearch } from './search';
import { benchSigning } from './signing';
import { benchSize } from './size';
import { benchVisits } from './visits';

/**
 * npm run bench [-- --json FILE] [-- --doc] [-- --only PART]: prints the table; exit 1 when a goal is missed. `--doc` writes
 * it into docs/bench.md with the commit.
 */
const PARTS: Record<string, () => Promise<Figure[]>> = {
	pages: async () => [...(await benchPress()), ...(await benchScan())],
	house: async () => [...(await benchLog()), ...(await benchDesk()), ...(await benchSearch())],
	pace: benchPace,
	lists: benchLists,
	batches: benchBatches,
	fit: benchFitting,
	bench: benchPlacing,
	signing: benchSigning,
	visits: benchVisits,
	size: benchSize
};
const given = (name: string): string | undefined => {
	const at = process.argv.indexOf(name);
	return at > 0 ? (process.argv[at + 1] ?? '') : undefined;
};
const [json, only, doc] = [given('--json'), given('--only'), process.argv.includes('--doc')];
if (doc) mayWriteDoc();
const parts: Record<string, Figure[]> = {};
for (const [name, measure] of Object.entries(PARTS))
	if (only === undefined || only === name) parts[name] = await measure();
const figures = Object.values(parts).flat();
console.log(table(figures));
if (json) writeFileSync(json, JSON.stringify(figures, null, '\t'));
if (doc) writeDoc(parts);
process.exit(figures.some((f) => f.holds === false) ? 1 : 0);
