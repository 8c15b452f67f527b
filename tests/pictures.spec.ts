import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { readStillSize } from '../src/core/formats/picture/size';
import { expect, open, test } from './app';

test('pages become pictures: chosen by one press, drawn when they are packed, and the command line draws the same', async ({
	page
}) => {
	test.setTimeout(180_000);
	await open(page, '/endpoint/ticket-hatch/plan/notices');
	await page.getByLabel('Shown by').selectOption('pictures');
	await page.getByLabel('Drawn from').fill('2027-03-27');
	await page.getByLabel('Drawn for').fill('1');
	await page.getByLabel('Drawn for').blur();
	await expect(page.getByText(/pictures, some \d+ MB; until 2027-03-28/)).toBeVisible();
	await page.getByRole('button', { name: 'Show the date in its place' }).first().click();
	await expect(page.getByText('A picture shows no clock')).toHaveCount(0);

	await open(page, '/endpoint/ticket-hatch/plan/delivery');
	const packed = page.waitForEvent('download', { timeout: 120_000 });
	await page.getByRole('button', { name: 'Pack and download' }).click();
	const files = unzipSync(readFileSync(await (await packed).path()));
	const inApp = picturesOf(files);
	expect(inApp.size).toBeGreaterThan(5);

	await open(page, '/venue');
	const exported = page.waitForEvent('download');
	await page.getByRole('button', { name: 'Export the workshop' }).click();
	const dir = mkdtempSync(join(tmpdir(), 'yphos-e2e-'));
	try {
		const plan = await (await exported).path();
		execFileSync('node', ['build/cli/yphos.mjs', 'pack', plan, '--endpoint', 'ticket-hatch', '--out', dir]);
		const names = [...inApp.keys()];
		const manifest = readFileSync(join(dir, 'manifest.txt'), 'utf8');
		const other = new Map(
			listed(manifest).map(([digest, path]) => [path, new Uint8Array(readFileSync(join(dir, 'files', digest)))])
		);
		expect([...other.keys()].sort()).toEqual(names.sort());
		for (const name of names) {
			const [a, b] = [inApp.get(name)!, other.get(name)!];
			expect(readStillSize(a)).toMatchObject({ ok: true, value: { codec: 'png', widthPx: 1026, heightPx: 1828 } });
			const { unlike, colours } = await page.evaluate(compare, [[...a], [...b]] as const);
			expect(unlike, name).toBeLessThan(0.002);
			// Text, and not its ground alone.
			expect(colours, name).toBeGreaterThan(20);
		}
	} finally {
		rmSync(dir, { recursive: true });
	}
});

const listed = (manifest: string): [digest: string, path: string][] =>
	[...manifest.matchAll(/^file ([0-9a-f]{64}) \d+ (notices\/pictures\/.+)$/gm)].map((row) => [row[1]!, row[2]!]);

function picturesOf(files: Record<string, Uint8Array>): Map<string, Uint8Array> {
	const manifest = Buffer.from(files['manifest.txt']!).toString();
	return new Map(listed(manifest).map(([digest, path]) => [path, files[`files/${digest}`]!]));
}

/** In the page: which part of two pictures' pixels differ by more than smoothing may, and how many colours the first has. */
async function compare(pictures: readonly (readonly number[])[]): Promise<{ unlike: number; colours: number }> {
	const pixels = await Promise.all(
		pictures.map(async (bytes) => {
			const image = await createImageBitmap(new Blob([Uint8Array.from(bytes)], { type: 'image/png' }));
			const pen = new OffscreenCanvas(image.width, image.height).getContext('2d')!;
			pen.drawImage(image, 0, 0);
			return pen.getImageData(0, 0, image.width, image.height).data;
		})
	);
	const [a, b] = pixels as [Uint8ClampedArray, Uint8ClampedArray];
	let unlike = 0;
	const colours = new Set<number>();
	for (let at = 0; at < a.length; at += 4) {
		colours.add((a[at]! << 16) | (a[at + 1]! << 8) | a[at + 2]!);
		if ([0, 1, 2].some((n) => Math.abs(a[at + n]! - b[at + n]!) > 40)) unlike++;
	}
	return { unlike: unlike / (a.length / 4), colours: colours.size };
}
