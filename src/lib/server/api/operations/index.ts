import type { Operation } from '../operation';
import { batches } from './batches';
import { drafts } from './drafts';
import { intakes } from './intakes';
import { packets } from './packets';
import { record } from './record';
import { templates } from './templates';

/** All that can be asked for, by what it is about. */
export const GROUPS: Record<string, Operation[]> = {
	Templates: templates,
	Packets: packets,
	Drafts: drafts,
	Batches: batches,
	Intakes: intakes,
	Records: record
};

export const OPERATIONS: Operation[] = Object.values(GROUPS).flat();
