import Database from 'better-sqlite3';
import { createHash, X509Certificate } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { KEPT, reportPage, untilSaid, WORD, type Report } from '../src/lib/press/seal/report';
import { verifySealed } from '../src/lib/press/seal/verify';
import { METHODS_FILE, type Ended } from '../src/lib/server/keys';
import { againstRoot, keptAs } from '../src/lib/server/verifying';

/**
 * npm run verify -- FILE [--json | --html] [--trust CERT.pem …] [--root ROOT.json]
 * `--html`: one page of HTML that anybody can read. `--root`: holds the record against a root that somebody has kept, by the
 * database in PELLUM_DATA.
 * Exit 0: genuine. 1: not. 2: cannot be judged (no such file, nobody to trust).
 * Trusts the roots in PELLUM_DATA/trust beside those named; needs no database, and says where there is one whether it keeps the copy.
 */
const args = process.argv.slice(2);
const json = args.includes('--json');
const trusts = args.flatMap((arg, i) => (args[i - 1] === '--trust' ? [arg] : []));
const html = args.includes('--html');
const root = args.find((_, i) => args[i - 1] === '--root');
const file = args.find((arg, i) => !arg.startsWith('--') && !['--trust', '--root'].includes(args[i - 1] ?? ''));

/** Whether a file is a certificate as text (PEM, RFC 7468), which is how roots are read. */
function isCertificate(file: string): boolean {
	try {
		return new X509Certificate(readFileSync(file, 'utf8')).raw.length > 0;
	} catch {
		return false;
	}
}

/** Whether the database of this data folder keeps exactly these bytes as a sealed copy; null where there is none to ask. */
function keptHere(bytes: Uint8Array): Report['kept'] {
	const database = path.join(process.env['PELLUM_DATA'] ?? 'data/demo', 'pellum.db');
	if (!existsSync(database)) return null;
	try {
		const db = new Database(database, { readonly: true });
		const found = keptAs(db, createHash('sha256').update(bytes).digest('hex'));
		db.close();
		return found;
	} catch {
		return null;
	}
}

/** Whether the record agrees with a root that somebody has kept; null where none was named. */
function rootAgrees(tree: { size: number; root: string } | undefined, roots: string[]): Report['root'] {
	if (!root) return null;
	const database = path.join(process.env['PELLUM_DATA'] ?? 'data/demo', 'pellum.db');
	if (!existsSync(root)) return { ok: false, say: `There is no file ${root}.` };
	if (!existsSync(database))
		return { ok: false, say: `There is no database in ${path.dirname(database)} to hold the root against.` };
	const db = new Database(database, { readonly: true });
	try {
		return againstRoot(db, tree ?? null, readFileSync(root, 'utf8'), roots);
	} finally {
		db.close();
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

for (const name of trusts)
	if (!isCertificate(name))
		give(2, { verdict: 'unjudged', say: 'not a root' }, `${name} is not a certificate (PEM). Name one that you trust.`);

const folder = path.join(process.env['PELLUM_DATA'] ?? 'data/demo', 'trust');
const trusted = existsSync(folder) ? readdirSync(folder).map((name) => path.join(folder, name)) : [];
const named = (end: string) => trusted.filter((name) => name.endsWith(end));
const roots = [...named('.pem'), ...trusts].map((name) => readFileSync(name, 'utf8'));
const bytes = readFileSync(file);
const result = await verifySealed(bytes, roots, {
	lists: named('.crl').map((name) => readFileSync(name)),
	ended: named(METHODS_FILE).map((name) => JSON.parse(readFileSync(name, 'utf8')) as Ended)[0]
});
const own = keptHere(bytes);
const against = rootAgrees(result.tree, roots);
const digest = createHash('sha256').update(bytes).digest('hex');
const at = new Date().toISOString();
const status = { genuine: against && !against.ok ? 1 : 0, altered: 1, unjudged: 2 }[result.verdict];
if (html) {
	console.log(reportPage({ name: path.basename(file), digest, verdict: result, kept: own, root: against, at }));
	process.exit(status);
}
give(
	status,
	{ ...result, ...(against && { against }) },
	[
		`${WORD[result.verdict]}: ${path.basename(file)}`,
		...(result.sealedBy
			? [
					`Sealed by ${result.sealedBy}${result.sealedAt ? `, ${result.sealedAt}` : ''}${result.reference ? `, as ${result.reference}` : ''}`
				]
			: []),
		...(result.root ? [`Root certificate SHA-256 ${result.root}`] : []),
		...(own === null ? [] : [`${KEPT[own][0]!.toUpperCase()}${KEPT[own].slice(1)}.`]),
		...(result.stamps ?? []).map((stamped) => `Stamped again ${stamped}`),
		...(result.until ? [`Provable until ${untilSaid(result.until)}`] : []),
		...[...result.checks, ...(against ? [against] : [])].map(
			(check) => `${check.ok ? '  yes ' : '  NO  '} ${check.say}`
		)
	].join('\n')
);
