import pino, { type Logger } from 'pino';

const logs = new Map<string, Logger>();

/** The log of a part of the server: lines of JSON on the standard output, from `PELLUM_LOG` (a level) on. */
export function logOf(name: string): Logger {
	let log = logs.get(name);
	if (!log) {
		const settings = { name, level: process.env['PELLUM_LOG'] ?? 'warn', serializers: { err: withoutPeople } };
		logs.set(name, (log = pino(settings)));
	}
	return log;
}

/** An error without whom it is about: addresses, numbers, links and what stood in quotes are left out. */
export function withoutPeople(error: unknown): object {
	if (!(error instanceof Error)) return { message: bare(String(error)) };
	const { name, message, stack } = error;
	const code = (error as { code?: unknown }).code;
	// the first lines of a stack repeat the message
	const at = stack?.split('\n').filter((line) => /^\s+at /.test(line));
	return { type: name, ...(code !== undefined && { code }), message: bare(message), stack: at?.join('\n') };
}

function bare(text: string): string {
	return text
		.replaceAll(/[^\s<>"'“”]+@[^\s<>"'“”]+/g, '(address)')
		.replaceAll(/“[^”]*”|"[^"]*"/g, '(text)')
		.replaceAll(/[\w-]{43}/g, '(link)')
		.replaceAll(/\+?\d[\d\s-]{7,}\d/g, '(number)');
}
