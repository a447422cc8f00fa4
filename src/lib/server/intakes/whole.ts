import { isRefusal } from '../../core/refusal';
import type { Db } from '../db';
import { checkedIntake } from './store';

/** What is wrong with intakes as they are kept: a setting that is none, a case without its version or its packet. */
export function intakeFaults(db: Db): string[] {
	const settings = [
		...db.prepare<[], { id: string; setting: string }>('SELECT id, setting FROM intakes').all(),
		...db.prepare<[], { id: string; setting: string }>('SELECT intake AS id, setting FROM intake_versions').all()
	];
	const read = (json: string): unknown => {
		try {
			return JSON.parse(json);
		} catch {
			return null;
		}
	};
	return [
		...settings.flatMap(({ id, setting }) =>
			isRefusal(checkedIntake(read(setting))) ? [`Intake ${id} is kept in a way that can’t be read.`] : []
		),
		...db
			.prepare<[], string>(
				`SELECT id FROM cases c WHERE NOT EXISTS
				 (SELECT 1 FROM intake_versions v WHERE v.intake = c.intake AND v.version = c.version)`
			)
			.pluck()
			.all()
			.map((id) => `Case ${id} was begun with a version of its intake that is not there.`),
		...db
			.prepare<[], string>('SELECT id FROM cases WHERE packet IS NOT NULL AND packet NOT IN (SELECT id FROM packets)')
			.pluck()
			.all()
			.map((id) => `Case ${id} names a packet that is not there.`)
	];
}
