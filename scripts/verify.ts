import Database from 'better-sqlite3';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { verifySealed } from '../src/lib/press/seal/verify';

/**
 * npm run verify -- FILE [--json] [--trust CERT.pem …]
 * Exit 0: genuine. 1: not. 2: cannot be judged (no such file, nobody to trust).
 * Trusts the roots in PELLUM_DATA/trust beside those named; needs no database, and says where there is one whether it keeps the copy.
 */
const args = process.argv.slice(2);
const json = args.includes('--json');
const trusts = args.flatMap((arg, i) => (args[i - 1] === '--trust' ? [arg] : []));
const file = args.find((arg, i) => !arg.startsWith('--') && args[i - 1] !== '--trust');

/** Whether the database of this data folder keeps exactly these bytes as a sealed copy; null where there is none to ask. */
function isKept(bytes: Uint8Array): boolean | null {
	const database = path.join(process.env['PELLUM_DATA'] ?? 'data/demo', 'pellum.db');
	if (!existsSync(database)) return null;
	try {
		const db = new Database(database, { readonly: true });
		const digest = createHash('sha256').update(bytes).digest('hex');
		const found = db.prepare('SELECT 1 FROM blobs WHERE digest = ?').get(digest) !== undefined;
		db.close();
		return found;
	} catch {
		return null;
	}
}

function give(status: number, result: object, text: string): never {
	console.log(json ? JSON.stringify(result, null, '\t') : text);
	process.exit(status);
}

if (!file || !existsSync(file))
	give(
		2,
		{ verdict: 'unjudged', say: 'no such file' },
		file ? `There is no file ${file}.` : 'Name the file: npm run verify -- FILE'
	);

const folder = path.join(process.env['PELLUM_DATA'] ?? 'data/demo', 'trust');
const kept = existsSync(folder)
	? readdirSync(folder)
			.filter((name) => name.endsWith('.pem'))
			.map((name) => path.join(folder, name))
	: [];
const roots = [...kept, ...trusts].map((name) => readFileSync(name, 'utf8'));
const bytes = readFileSync(file);
const result = await verifySealed(bytes, roots);
const own = isKept(bytes);
const WORD = { genuine: 'Genuine', altered: 'Not genuine', unjudged: 'Cannot be judged' };
give(
	{ genuine: 0, altered: 1, unjudged: 2 }[result.verdict],
	result,
	[
		`${WORD[result.verdict]}: ${path.basename(file)}`,
		...(result.sealedBy
			? [
					`Sealed by ${result.sealedBy}${result.sealedAt ? `, ${result.sealedAt}` : ''}${result.reference ? `, as ${result.reference}` : ''}`
				]
			: []),
		...(result.root ? [`Root certificate SHA-256 ${result.root}`] : []),
		...(own === null
			? []
			: [
					own
						? 'Byte for byte a copy that this Pellum keeps.'
						: 'No copy of exactly these bytes is kept in this Pellum.'
				]),
		...result.checks.map((check) => `${check.ok ? '  yes ' : '  NO  '} ${check.say}`)
	].join('\n')
);
