import type { House } from '../house';
import type { provesUntil } from '../keys';

/** Writes down until when a packet's copies are proven, and by which method. Runs in the caller's transaction. */
export function keepLasting(house: House, packet: string, { until, method }: ReturnType<typeof provesUntil>): void {
	house.db
		.prepare(
			`INSERT INTO lasting (packet, until, method) VALUES (?, ?, ?)
			 ON CONFLICT (packet) DO UPDATE SET until = excluded.until, method = excluded.method`
		)
		.run(packet, until, method);
}
