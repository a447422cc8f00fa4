import { afterEach, expect, test, vi } from 'vitest';
import { emptyIntake, type Intake } from '../../core/intake';
import { emptyPlan } from '../../core/packet';
import { Making } from './making.svelte';

const plan = emptyPlan();
const setting = emptyIntake('A hall', '');
afterEach(() => vi.unstubAllGlobals());

/** A server that keeps what has the revision it waits for, when it is let. */
function slowServer() {
	const asked: { revision: number; heading: string }[] = [];
	const waiting: (() => void)[] = [];
	let revision = 1;
	vi.stubGlobal('fetch', async (_url: string, { body }: { body: string }) => {
		const sent = JSON.parse(body) as { revision: number; setting: Intake };
		asked.push({ revision: sent.revision, heading: sent.setting.heading });
		await new Promise<void>((go) => waiting.push(go));
		const right = sent.revision === revision;
		if (right) revision += 1;
		return Response.json(right ? { revision } : { say: 'elsewhere' }, { status: right ? 200 : 409 });
	});
	return { asked, waiting };
}

test('what is changed while it is being kept is kept after that, never beside it', async () => {
	const { asked, waiting } = slowServer();
	const making = new Making('i', plan, setting, 1, '2026-09-01');
	making.set({ heading: 'The hall' });
	const first = making.keep();
	await vi.waitFor(() => expect(waiting).toHaveLength(1));
	making.set({ heading: 'The old hall' });
	const second = making.keep();
	expect(making.keeping).toBe('keeping');
	waiting[0]!();
	await vi.waitFor(() => expect(waiting).toHaveLength(2));
	expect(making.keeping).toBe('keeping');
	waiting[1]!();
	expect(await Promise.all([first, second])).toEqual([true, true]);
	expect(asked).toEqual([
		{ revision: 1, heading: 'The hall' },
		{ revision: 2, heading: 'The old hall' }
	]);
	expect([making.keeping, making.wrong, making.revision]).toEqual(['kept', '', 3]);
	// nothing has changed since: nothing is sent
	expect(await making.keep()).toBe(true);
	expect(asked).toHaveLength(2);
	making.stop();
});
