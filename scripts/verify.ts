import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { verifySealed } from '../src/lib/press';

/**
 * npm run verify -- FILE [--json] [--trust CERT.pem …]
 * Exit 0: genuine. 1: not. 2: cannot be judged (no such file, nobody to trust).
 * Trusts the roots in PELLUM_DATA/trust beside those named; needs no database.
 */
const args = process.argv.slice(2);
const json = args.includes('--json');
const trusts = args.flatMap((arg, i) => (args[i - 1] === '--trust' ? [arg] : []));
const file = args.find((arg, i) => !arg.startsWith('--') && args[i - 1] !== '--trust');

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
const result = await verifySealed(readFileSync(file), roots);
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
		...result.checks.map((check) => `${check.ok ? '  yes ' : '  NO  '} ${check.say}`)
	].join('\n')
);
