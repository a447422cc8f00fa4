import pino, { type Logger } from 'pino';

const logs = new Map<string, Logger>();

/** The log of a part of the server: lines of JSON on the standard output, from `PELLUM_LOG` (a level) on. */
export function logOf(name: string): Logger {
	let log = logs.get(name);
	if (!log) logs.set(name, (log = pino({ name, level: process.env['PELLUM_LOG'] ?? 'warn' })));
	return log;
}
