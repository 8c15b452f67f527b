import { resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import { createServer } from 'vite';
import type { chain as Chain } from '../src/core/chain';
import type { judges as Judges } from '../src/core/judges';
import type { writers as Writers } from '../src/core/writers';
import type { assess as Assess } from '../src/core/engines/assess';
import type { contextFor as ContextFor } from '../src/core/engines/context';
import type { write as Write } from '../src/core/engines/write';
import type { demoWorkshop as Demo } from '../demo/workshop';
import { open } from './app';

/** Every setting that a finding, a figure or a line of a card file of the demo names, by endpoint; from the core itself. */
async function settingsOfTheDemo(): Promise<{ id: string; settings: string[] }[]> {
	const vite = await createServer({
		root: resolve(import.meta.dirname, '..'),
		logLevel: 'error',
		server: { middlewareMode: true },
		appType: 'custom'
	});
	const load = async <T>(path: string): Promise<T> => (await vite.ssrLoadModule(path)) as T;
	const { chain } = await load<{ chain: typeof Chain }>('/src/core/chain.ts');
	const { judges } = await load<{ judges: typeof Judges }>('/src/core/judges.ts');
	const { writers } = await load<{ writers: typeof Writers }>('/src/core/writers.ts');
	const { assess } = await load<{ assess: typeof Assess }>('/src/core/engines/assess.ts');
	const { contextFor } = await load<{ contextFor: typeof ContextFor }>('/src/core/engines/context.ts');
	const { write } = await load<{ write: typeof Write }>('/src/core/engines/write.ts');
	const { demoWorkshop } = await load<{ demoWorkshop: typeof Demo }>('/demo/workshop.ts');
	const found = demoWorkshop.endpoints.map(({ id, plan }) => {
		const context = contextFor(chain, demoWorkshop, id);
		const lines = write(writers, plan, context).flatMap((file) =>
			'lines' in file ? file.lines.map(({ setting }) => setting) : [file.setting]
		);
		const { findings, links } = assess(judges, plan, context);
		const named = [...findings, ...links.flatMap(({ figures }) => figures)].flatMap(({ setting }) => setting ?? []);
		return { id, settings: [...new Set([...lines, ...named])].sort() };
	});
	await vite.close();
	return found;
}

test('every finding, every figure and every line of a card file leads to a field that is there', async ({ page }) => {
	test.setTimeout(900_000);
	const endpoints = await settingsOfTheDemo();
	const nowhere: string[] = [];
	for (const { id, settings } of endpoints) {
		const links = [...new Set(settings.map((setting) => setting.split('.')[0]!))];
		for (const link of links) {
			await open(page, `/endpoint/${id}/plan/${link}`);
			await expect(page.locator('.settings')).toBeVisible();
			const here = settings.filter((known) => known.startsWith(`${link}.`));
			nowhere.push(...(await page.evaluate(reachAll, here)).map((bad) => `${id}: ${bad}`));
		}
	}
	expect(nowhere).toEqual([]);
});

/** In the page: goes to one setting after the other as a link to it does; gives those that lead to no field, or only to what holds them. */
async function reachAll(settings: readonly string[]): Promise<string[]> {
	const bad: string[] = [];
	const FRAMES = 600;
	for (const setting of settings) {
		(document.activeElement as HTMLElement | null)?.blur();
		location.hash = `setting-${setting}`;
		for (let frame = 0; frame < FRAMES && document.activeElement === document.body; frame++)
			await new Promise(requestAnimationFrame);
		const place = document.activeElement?.closest('[id^="setting-"]')?.id.slice('setting-'.length);
		if (!place) bad.push(`${setting} leads nowhere`);
		else if (place !== setting && !place.startsWith(`${setting}.`)) bad.push(`${setting} leads to ${place}`);
	}
	return bad;
}
