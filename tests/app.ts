import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { expect, test as base, type Page } from '@playwright/test';

export const root = resolve(import.meta.dirname, '..');
export const probeReport = readFileSync(resolve(root, 'src/core/probe/fixtures/emulated.txt'), 'utf8');

/** Every test also holds the page to two promises: no error in its console, and no request that leaves its own origin. */
export const test = base.extend<{ page: Page }>({
	page: async ({ page, baseURL }, use) => {
		const broken: string[] = [];
		page.on('console', (message) => message.type() === 'error' && broken.push(message.text()));
		page.on('pageerror', (error) => broken.push(String(error)));
		page.on('request', (request) => {
			if (!/^(blob|data):/.test(request.url()) && !request.url().startsWith(baseURL!))
				broken.push(`left the origin: ${request.url()}`);
		});
		await use(page);
		expect(broken).toEqual([]);
	}
});

export async function open(page: Page, path: string): Promise<void> {
	await page.goto(path);
	await expect(page.getByRole('navigation', { name: 'Shelf' })).toContainText('Skerrin Light');
}

export const saved = (page: Page) => expect(page.getByText(/^Saved \d/)).toBeVisible();
export { expect };
