/** Fetching one file for many packets, which may take a while. */

export interface Wanted {
	ids: string[];
	what: 'copies' | 'answers' | 'list';
	as: 'zip' | 'csv' | 'xlsx';
}

/**
 * Fetches it, telling how far it is (0 to 1), and hands it to the browser to keep. Gives a sentence where it did not work; nothing where
 * it did, or was called off.
 */
export async function fetchFile(wanted: Wanted, told: (share: number) => void, signal: AbortSignal): Promise<string> {
	try {
		const response = await fetch('/records/download', {
			method: 'POST',
			headers: { 'Content-Type': 'application/json' },
			body: JSON.stringify(wanted),
			signal
		});
		if (!response.ok) {
			const no = (await response.json().catch(() => ({}))) as { say?: string };
			return no.say ?? 'It could not be fetched. What you chose is still chosen; try again.';
		}
		const whole = Number(response.headers.get('Whole-Bytes')) || 0;
		const pieces: BlobPart[] = [];
		let got = 0;
		const reader = response.body!.getReader();
		for (;;) {
			const { done, value } = await reader.read();
			if (done) break;
			pieces.push(value);
			got += value.length;
			if (whole > 0) told(Math.min(0.99, got / whole));
		}
		save(new Blob(pieces, { type: response.headers.get('Content-Type') ?? '' }), nameOf(response));
		return '';
	} catch (error) {
		if (signal.aborted) return '';
		return error instanceof TypeError
			? 'The connection was lost before all of it was here, so nothing was kept. What you chose is still chosen; try again.'
			: 'It could not be fetched. What you chose is still chosen; try again.';
	}
}

function nameOf(response: Response): string {
	const head = response.headers.get('Content-Disposition') ?? '';
	const coded = /filename\*=UTF-8''([^;]+)/.exec(head)?.[1];
	return coded ? decodeURIComponent(coded) : (/filename="([^"]+)"/.exec(head)?.[1] ?? 'records');
}

function save(file: Blob, name: string): void {
	const address = URL.createObjectURL(file);
	const link = document.createElement('a');
	link.href = address;
	link.download = name;
	link.click();
	setTimeout(() => URL.revokeObjectURL(address), 60_000);
}
