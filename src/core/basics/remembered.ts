/** A reading of texts, kept for those that are asked for again and again; past `most` of them it begins to forget anew. */
export function remembered<V>(most: number, read: (text: string) => V): (text: string) => V {
	const known = new Map<string, V>();
	return (text) => {
		let value = known.get(text);
		if (value === undefined && !known.has(text)) {
			if (known.size >= most) known.clear();
			known.set(text, (value = read(text)));
		}
		return value as V;
	};
}
