// For the bench: sixty endpoints of 300 rules and 2000 entries each in a browser, from import to a key.
const ENDPOINTS = 60;
const RULES = 300;
const ENTRIES = 2000;
const KEYS = 12;
const WEEK = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/**
 * The text of such a workshop.
 * @param {any} demo the workshop that its endpoints are made after
 * @param {(id: string, where: string) => any} newRule
 */
export function largeWorkshopText(demo, newRule) {
	const [first] = demo.endpoints;
	const endpoints = Array.from({ length: ENDPOINTS }, (_, n) => ({
		...first,
		id: `room-${n}`,
		plan: {
			...first.plan,
			brief: { ...first.plan.brief, name: `Room ${n}` },
			network: { ...first.plan.network, hostName: `room-${n}` },
			sources: {
				...first.plan.sources,
				items: Array.from({ length: ENTRIES }, (__, k) => ({
					id: `i${k}`,
					location: `music/record ${k % 90}/song ${k}.flac`,
					title: `Song ${k} of room ${n}`,
					durationSec: 120 + (k % 200),
					extra: [],
					part: null
				}))
			},
			programme: {
				...first.plan.programme,
				rules: Array.from({ length: RULES }, (__, k) => ({
					...newRule(`r${k}`, k % 3 ? 'all' : 'rest'),
					weekdays: WEEK.slice(k % 5, (k % 5) + 3),
					from: { at: 'clock', time: `${String(k % 24).padStart(2, '0')}:00`, offsetMin: k % 50 },
					until: { at: 'clock', time: `${String((k + 2) % 24).padStart(2, '0')}:30`, offsetMin: 0 }
				}))
			}
		}
	}));
	return JSON.stringify({ ...demo, name: 'Sixty rooms', endpoints });
}

/**
 * @param {import('@playwright/test').Browser} browser
 * @param {string} origin
 * @param {string} text
 * @param {() => number} memoryMb
 */
export async function largeWorkshop(browser, origin, text, memoryMb) {
	const page = await (await browser.newContext({ serviceWorkers: 'block' })).newPage();
	page.setDefaultTimeout(60_000);
	await page.goto(`${origin}/venue`, { waitUntil: 'networkidle' });
	const session = await page.context().newCDPSession(page);
	// What the page holds, not what the browser has not yet thrown away; its workers' heaps stay as they are.
	const heldMb = async () => {
		await session.send('HeapProfiler.collectGarbage');
		await page.waitForTimeout(1000);
		return memoryMb();
	};
	const before = await heldMb();
	let mostMb = before;
	const watch = setInterval(() => (mostMb = Math.max(mostMb, memoryMb())), 500);
	// What this machine can do at this moment: the same text read by the browser's own parser, which is most of what an import cannot do without.
	const parses = [];
	for (let n = 0; n < 3; n++)
		parses.push(
			await page.evaluate((json) => {
				const from = performance.now();
				JSON.parse(json);
				return performance.now() - from;
			}, text)
		);
	const parseMs = parses.toSorted((a, b) => a - b)[1] ?? 0;
	await page
		.locator('input[type=file][accept*=json]')
		.setInputFiles({ name: 'sixty.yphos.json', mimeType: 'application/json', buffer: Buffer.from(text) });
	/** In the page, from a press until a text stands there and is painted, in ms. */
	const until = (/** @type {string} */ press, /** @type {string} */ there, /** @type {string} */ says) =>
		page.evaluate(
			async ([selector, where, words]) => {
				const pressed = [...document.querySelectorAll(/** @type {string} */ (selector))].at(-1);
				const from = performance.now();
				/** @type {HTMLElement} */ (pressed).click();
				const stands = () =>
					[...document.querySelectorAll(/** @type {string} */ (where))].some((one) =>
						one.textContent?.includes(/** @type {string} */ (words))
					);
				while (!stands()) {
					if (performance.now() - from > 100_000) throw new Error(`no ${words} in ${where}`);
					await new Promise((done) => requestAnimationFrame(done));
				}
				await new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
				return performance.now() - from;
			},
			[press, there, says]
		);
	await page.getByRole('dialog').getByRole('button', { name: 'Open it' }).waitFor();
	await page
		.getByRole('dialog')
		.getByRole('button', { name: 'Open it' })
		.evaluate((/** @type {HTMLElement} */ one) => one.setAttribute('data-bench', 'open'));
	const importMs = await until('[data-bench=open]', 'nav', `Room ${ENDPOINTS - 1}`);
	const endpointMs = await until('a[href^="/endpoint/room-7"]', 'h1', 'Room 7');
	const savedFrom = performance.now();
	await page.getByText(/^Saved \d/).waitFor();
	const savedMs = performance.now() - savedFrom;
	await page.goto(`${origin}/endpoint/room-7/plan/brief`);
	const field = page.getByLabel('Name', { exact: true });
	await field.waitFor();
	// The workers are done with the others before keys are timed, as they are when a person begins to type.
	await page.waitForTimeout(5000);
	const keys = [];
	await field.focus();
	for (let n = 0; n < KEYS; n++) {
		await page.evaluate(() => {
			const typed = /** @type {HTMLInputElement} */ (document.activeElement);
			typed.addEventListener(
				'input',
				() => {
					const from = performance.now();
					requestAnimationFrame(() => setTimeout(() => (window.name = String(performance.now() - from))));
				},
				{ once: true, capture: true }
			);
			window.name = '';
		});
		await page.keyboard.type('x');
		await page.waitForFunction(() => window.name !== '');
		keys.push(Number(await page.evaluate(() => window.name)));
		await page.waitForTimeout(700);
	}
	const weekMs = await until('nav a[href="/week"]', 'h1', 'Week');
	const homeMs = await until('nav a[href="/"]', 'h1', 'Shelf');
	const sorted = keys.toSorted((a, b) => a - b);
	clearInterval(watch);
	const megabytes = (await heldMb()) - before;
	console.log(
		`${ENDPOINTS} endpoints × ${RULES} rules × ${ENTRIES} entries, ${(text.length / 1e6).toFixed(1)} MB: its text parsed in ${parseMs.toFixed(0)} ms; opened in ${importMs.toFixed(0)} (limit 2000, ${(importMs / parseMs).toFixed(1)} times the parsing), saved ${savedMs.toFixed(0)} later, an endpoint ${endpointMs.toFixed(0)} (300, ${(endpointMs / parseMs).toFixed(1)} times), a key to its picture ${sorted[KEYS >> 1]?.toFixed(0)}, at worst ${sorted.at(-1)?.toFixed(0)} (50), week ${weekMs.toFixed(0)} (500, ${(weekMs / parseMs).toFixed(1)} times), shelf ${homeMs.toFixed(0)} (500, ${(homeMs / parseMs).toFixed(1)} times); memory of the pages rose by ${megabytes.toFixed(0)} MB that are held (limit 250), by ${(mostMb - before).toFixed(0)} at most between two collections`
	);
	await page.context().close();
}
