/** 32 bits of a text: FNV-1a. */
function seedOf(text: string): number {
	let hash = 0x811c9dc5;
	for (let n = 0; n < text.length; n++) hash = Math.imul(hash ^ text.charCodeAt(n), 0x01000193);
	return hash >>> 0;
}

/** Numbers from 0 to 1 that look like chance, and are the same wherever they are drawn: mulberry32. */
function chanceOf(seed: number): () => number {
	let state = seed;
	return () => {
		state = (state + 0x6d2b79f5) | 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
	};
}

/** The places of so many entries in an order by chance, each once. */
function anyOrder(count: number, seed: string): number[] {
	const chance = chanceOf(seedOf(seed));
	const order = Array.from({ length: count }, (_, n) => n);
	for (let n = count - 1; n > 0; n--) {
		const other = Math.floor(chance() * (n + 1));
		[order[n], order[other]] = [order[other]!, order[n]!];
	}
	return order;
}

/**
 * The order of one round of a shuffled list, reckoned from its name and its number alone, so that whoever looks at a clock finds the same.
 * Nothing comes again before a third of the others have had their turn, over the seam of two rounds too: what the round before had
 * in its last third is kept out of the first.
 */
export function shuffledOrder(count: number, name: string, round: number): number[] {
	const order = anyOrder(count, `${name} ${round}`);
	// Two take turns; by chance one of them would come twice in a row.
	if (count < 3) return Array.from({ length: count }, (_, n) => n);
	if (round === 0) return order;
	const apart = Math.floor(count / 3);
	const justOver = new Set(anyOrder(count, `${name} ${round - 1}`).slice(-apart));
	const head = order.slice(0, count - apart);
	return [
		...head.filter((place) => !justOver.has(place)),
		...head.filter((place) => justOver.has(place)),
		...order.slice(-apart)
	];
}
