import { expect, open, saved, test } from './app';

/** What a browser's store can do at a start; another place to save would be forgotten at the next. */
const STARTS: readonly [string, string][] = [
	['throws', "IDBFactory.prototype.open = () => { throw new DOMException('no', 'SecurityError'); };"],
	[
		'fails',
		`const real = IDBFactory.prototype.open;
		IDBFactory.prototype.open = function () {
			const request = real.call(this, 'nothing-' + Math.random());
			Object.defineProperty(request, 'result', { get() { throw new DOMException('no', 'InvalidStateError'); } });
			Object.defineProperty(request, 'error', { get: () => new DOMException('broken', 'UnknownError') });
			queueMicrotask(() => request.onerror?.({ preventDefault() {}, target: request }));
			Object.defineProperty(request, 'onsuccess', { set() {} });
			return request;
		};`
	],
	['hangs', 'IDBFactory.prototype.open = () => ({ addEventListener() {} });'],
	['is missing', "Object.defineProperty(window, 'indexedDB', { value: undefined });"]
];

for (const [what, script] of STARTS)
	test(`a store that ${what} at a start locks with words, saves nowhere else, and forgets nothing`, async ({
		page,
		context
	}) => {
		await open(page, '/endpoint/bunkhouse-lounge/plan/brief');
		await page.getByLabel('Name', { exact: true }).fill('Loft lounge');
		await saved(page);
		await page.close();
		const bad = await context.newPage();
		await bad.addInitScript(script);
		await bad.goto('/');
		await expect(bad.getByText('This browser does not give the saved workshop out')).toBeVisible({ timeout: 60_000 });
		expect(await bad.evaluate(() => Object.keys(localStorage).filter((key) => key.startsWith('yphos/')))).toEqual([]);
		await expect(bad.getByText('Saved', { exact: true })).toHaveCount(0);
		await bad.close();
		const good = await context.newPage();
		await open(good, '/endpoint/bunkhouse-lounge/plan/brief');
		await expect(good.getByLabel('Name', { exact: true })).toHaveValue('Loft lounge');
	});
