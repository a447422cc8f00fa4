import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { memoryDb, type Db } from './index';

/**
 * Every statement that the server prepares is explained, on a full database without statistics and on one with them: none
 * walks a table that grows, and none sorts one.
 */

/** Run by commands over everything, never by a request or a job. */
const COMMANDS = ['check.ts', 'check-tables.ts', 'export.ts', 'whole.ts', 'copy.ts', 'restore.ts'];

/** Tables that stay small: as many rows as a house has settings, accounts, folders or holidays. */
const SMALL = [
	'meta',
	'accounts',
	'holidays',
	'keys',
	'packet_counts',
	'saved_texts',
	'troubles',
	'json_each',
	'folders',
	'folder_members',
	'hooks',
	// an office has tens of either
	'holds',
	'retention_rules'
];

/** What may walk or sort all the same, by a piece of the statement, and why. */
const PERMITTED: Record<string, string> = {
	'FROM templates t': 'a house has tens of templates, hundreds at most',
	'FROM templates WHERE': 'the same',
	'FROM intakes i JOIN templates': 'a house has tens of intakes',
	'DELETE FROM receiver': 'the stand-in’s own book, in the demo; something goes seldom, and by a job',
	'FROM wait_counts': 'one stretch of a key: as many rows as weeks, folders and lengths, whatever the packets',
	'INDEXED BY batches_standing': 'those that stand open, which are few, and all are meant',
	'UPDATE jobs SET due_at': 'somebody has pressed “Try now”: all that failed is meant, by its partial index'
};

let sources: ts.SourceFile[] = [];

interface Site {
	file: string;
	sql: string;
}

/** Every text that is handed to `prepare`, with what is put in by name put in. */
function sites(): Site[] {
	const files = (folder: string): string[] =>
		readdirSync(folder).flatMap((name) => {
			const file = path.join(folder, name);
			return statSync(file).isDirectory() ? files(file) : /(?<!\.test)\.ts$/.test(name) ? [file] : [];
		});
	sources = files('src/lib/server').map((file) =>
		ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true)
	);
	return sources
		.filter(({ fileName }) => !COMMANDS.includes(path.basename(fileName)))
		.flatMap((source) => {
			const file = source.fileName;
			const found: Site[] = [];
			const walk = (node: ts.Node): void => {
				if (
					ts.isCallExpression(node) &&
					ts.isPropertyAccessExpression(node.expression) &&
					node.expression.name.text === 'prepare'
				)
					for (const sql of textsOf(node.arguments[0]!, source)) found.push({ file, sql });
				ts.forEachChild(node, walk);
			};
			walk(source);
			return found;
		});
}

/** All texts an expression can be: constants of the file, either side of a choice, each of a table of choices. */
function textsOf(node: ts.Expression, source: ts.SourceFile): string[] {
	if (ts.isStringLiteralLike(node)) return [node.text];
	if (ts.isParenthesizedExpression(node)) return textsOf(node.expression, source);
	if (ts.isConditionalExpression(node)) return [...textsOf(node.whenTrue, source), ...textsOf(node.whenFalse, source)];
	if (ts.isTemplateExpression(node))
		return node.templateSpans.reduce(
			(heads, span) => {
				const inner = textsOf(span.expression, source);
				return heads.flatMap((head) => inner.map((text) => head + text + span.literal.text));
			},
			[node.head.text]
		);
	if (ts.isIdentifier(node)) {
		// each of a list that is walked around it
		const walked = listAround(node);
		if (walked) return walked.flatMap((element) => textsOf(element, source));
		for (const one of [source, ...sources]) {
			const value = valueOf(node.text, one);
			if (value) return textsOf(value, one);
		}
		return unknown(node, source);
	}
	// `by.from`, where `by` is one of a table of choices
	if (ts.isPropertyAccessExpression(node) && ts.isIdentifier(node.expression)) {
		const table = valueOf(node.expression.text, source);
		const chosen = table && ts.isNonNullExpression(table) ? table.expression : table;
		const choices = chosen && ts.isElementAccessExpression(chosen) ? chosen.expression : undefined;
		if (choices && ts.isObjectLiteralExpression(choices))
			return choices.properties.flatMap((choice) => {
				const one = (choice as ts.PropertyAssignment).initializer as ts.ObjectLiteralExpression;
				const part = one.properties.find((p) => p.name?.getText(source) === node.name.text) as ts.PropertyAssignment;
				return textsOf(part.initializer, source);
			});
	}
	return unknown(node, source);
}

const unknown = (node: ts.Node, source: ts.SourceFile): never => {
	throw new Error(`${source.fileName}: a statement can't be told from “${node.getText(source)}”`);
};

/** Of `for (const sql of [...]) db.prepare(sql)`, the list. */
function listAround(node: ts.Identifier): ts.Expression[] | undefined {
	for (let at: ts.Node = node; at.parent; at = at.parent)
		if (
			ts.isForOfStatement(at) &&
			ts.isArrayLiteralExpression(at.expression) &&
			ts.isVariableDeclarationList(at.initializer)
		) {
			const name = at.initializer.declarations[0]!.name;
			if (name.getText() === node.text) return at.expression.elements.slice();
			// `{ where, sql }`, each with its own
			const taken = ts.isObjectBindingPattern(name) && name.elements.some((one) => one.name.getText() === node.text);
			if (taken)
				return at.expression.elements.map(
					(element) =>
						(element as ts.ObjectLiteralExpression).properties
							.filter(ts.isPropertyAssignment)
							.find((one) => one.name.getText() === node.text)!.initializer
				);
		}
	return undefined;
}

function valueOf(name: string, source: ts.SourceFile): ts.Expression | undefined {
	let value: ts.Expression | undefined;
	const walk = (node: ts.Node): void => {
		if (ts.isVariableDeclaration(node) && node.name.getText(source) === name) value = node.initializer;
		ts.forEachChild(node, walk);
	};
	walk(source);
	return value;
}

/** Rows enough that a planner with statistics has something to choose by. */
function full(db: Db): void {
	db.pragma('foreign_keys = OFF');
	const n = 3000;
	const rows = `WITH RECURSIVE i(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM i WHERE i < ${n})`;
	const day = "'2026-' || printf('%02d', 1 + i % 12) || '-01T00:00:00.000Z'";
	const id = "'k' || printf('%06d', i)";
	for (const [into, values] of [
		[
			'packets (id, reference, owner, title, status, sent_at, since, deadline, ended_at, thread, sealed, events, head, next_at, term_end, term_told, template, follows, unreachable)',
			`${id}, 'P-' || i, CASE i % 3 WHEN 0 THEN 'a' ELSE 'b' END, 'Title', CASE i % 10 WHEN 0 THEN 'completed' WHEN 1 THEN 'declined' ELSE 'out' END, ${day}, ${day}, ${day}, CASE WHEN i % 10 < 2 THEN ${day} END, '[]', '{}', 3, '', ${day}, ${day}, i % 2, 't', 'f' || i, i % 50 = 0`
		],
		[
			'packet_people (packet, person, name, email, standing, since)',
			`${id}, 'p', 'Name', 'x' || (i % 500), 'opened', ${day}`
		],
		['packet_numbers (packet)', id],
		['packets_text (rowid, words)', "i, 'some words of it'"],
		['packets_full (rowid, words)', "i, 'some words of it'"],
		[
			'packet_order (put, sort, value, n)',
			"CASE i % 5 WHEN 0 THEN 'archive' ELSE '' END, 'ended', printf('%06d', i), i"
		],
		['packet_words (n, papers, answers)', "i, '[]', ''"],
		['pages_text (rowid, words, plain)', "i, 'some words of it', 'some words of it'"],
		['paper_texts (digest, first, pages)', 'i, i, 1'],
		['events (seq, packet, n, body, hash)', `i, ${id}, 0, '{}', ''`],
		['tree_nodes (level, idx, hash)', "1, i, ''"],
		['plans (digest, json)', "i, '{}'"],
		['blobs (digest, media, bytes, created_at)', `i, 'x', x'00', ${day}`],
		['papers (digest, pages, words, thumbnail, stripped)', "i, '[]', '[]', i, '[]'"],
		['paper_sources (paper, source, name)', "i, i, 'x'"],
		['paper_looks (paper, page, account, name, at)', "i, 0, 'a', 'x', ''"],
		['paper_scans (paper, page, at)', "i, 0, ''"],
		['attachments (digest)', 'i'],
		['links (token_hash, packet, person, created_at)', `i, ${id}, 'p', ${day}`],
		['saved_answers (packet, person, answers, saved_at)', `${id}, 'p', '{}', ${day}`],
		[
			'jobs (kind, key, payload, due_at, attempts, done_at)',
			`CASE i % 4 WHEN 0 THEN 'seal' ELSE 'message' END, i, '{}', ${day}, i % 5, CASE WHEN i % 9 THEN ${day} END`
		],
		[
			'mailbox (message_id, at, recipient, sender, subject, text, html, attachments)',
			`i, ${day}, 'x' || (i % 500), '', '', '', '', '[]'`
		],
		['phone (message_id, at, recipient, text)', `i, ${day}, 'x' || (i % 500), ''`],
		['codes (packet, person, hash, expires_at)', `${id}, 'p', '', ${day}`],
		['passes (token_hash, packet, person, expires_at)', `i, ${id}, 'p', ${day}`],
		[
			'drafts (id, owner, revision, plan, saved_at, send_at)',
			`i, CASE i % 3 WHEN 0 THEN 'a' ELSE 'b' END, 1, '{}', ${day}, CASE WHEN i % 20 = 0 THEN ${day} END`
		],
		['sessions (token_hash, account, created_at, expires_at)', `i, 'a' || (i % 40), ${day}, ${day}`],
		['batches (id, template, owner, name, made_at, columns, setting)', `i, 't', 'a', '', ${day}, '[]', '{}'`],
		['batch_rows (batch, n, cells)', "i / 50, i, '[]'"],
		['batch_packets (batch, who, packet)', `i / 50, i, ${id}`],
		['packet_wordings (packet, id, person, name, words, instead, at)', `${id}, 'w', 'p', '', '', '', ${day}`],
		['template_versions (template, version, plan, account, at, note)', `'t' || (i % 100), i, 'd', 'a', ${day}, ''`],
		['template_shares (template, account)', "'t' || i, 'a' || (i % 40)"]
	] as const)
		db.exec(`${rows.replace('WITH', `INSERT INTO ${into} WITH`)} SELECT ${values} FROM i`);
}

/** What of a statement's plan walks or sorts what grows. */
function faults(db: Db, sql: string): string[] {
	const named = Object.fromEntries([...sql.matchAll(/@(\w+)/g)].map(([, name]) => [name!, null]));
	const given = Object.keys(named).length > 0 ? [named] : [...sql.matchAll(/\?/g)].map(() => null);
	const steps = db.prepare<unknown[], { detail: string }>(`EXPLAIN QUERY PLAN ${sql}`).all(...given);
	const details = steps.map((step) => step.detail);
	const grows = details.some((detail) => {
		const table = /^(?:SEARCH|SCAN) (\w+)/.exec(detail)?.[1];
		return table !== undefined && !SMALL.includes(realName(sql, table));
	});
	return details.filter((detail) => {
		const scan = /^SCAN (\w+)/.exec(detail)?.[1];
		if (scan) {
			if (SMALL.includes(realName(sql, scan)) || /VIRTUAL TABLE INDEX \d+:(=|><|.*M)|^SCAN (\d+|CONSTANT)/.test(detail))
				return false;
			// in the order of an index or of the rows, and no further than a page of it
			const ordered = /USING (COVERING )?INDEX|packets_(text|full)|pages_text/.test(detail) || !/\bWHERE\b/.test(sql);
			return !(ordered && /\bLIMIT\b/.test(sql)) && !lastOnly(sql);
		}
		return grows && detail.startsWith('USE TEMP B-TREE');
	});
}

/** max() and min() of an indexed column look at one row. */
const lastOnly = (sql: string): boolean => /^SELECT (max|min)\(\w+\)/.test(sql);

/** The table behind a name in a statement. */
function realName(sql: string, name: string): string {
	return new RegExp(`(?:FROM|JOIN|,)\\s+(\\w+)(?:\\(.*?\\))?\\s+(?:AS )?${name}\\b`).exec(sql)?.[1] ?? name;
}

const statements = sites();

describe.each(['without statistics', 'with statistics'])('a full database %s', (how) => {
	const db = memoryDb();
	full(db);
	if (how === 'with statistics') db.exec('ANALYZE');
	it('is asked by statements that neither walk nor sort what grows', () => {
		expect(statements.length).toBeGreaterThan(180);
		const wrong = statements.flatMap(({ file, sql }) =>
			Object.keys(PERMITTED).some((piece) => sql.includes(piece))
				? []
				: faults(db, sql).map((fault) => `${file}: ${fault}\n    ${sql.replace(/\s+/g, ' ')}`)
		);
		expect(wrong).toEqual([]);
	});
});

it('permits nothing that is not there', () => {
	for (const piece of Object.keys(PERMITTED)) expect(statements.some(({ sql }) => sql.includes(piece))).toBe(true);
});
