/** What a script is made of. Source: POSIX.1-2017, Shell Command Language, 2.9 and 2.10; bash(1) for [[ ]], (( )), arrays. */

/** A piece of a word. Pieces that were quoted are never split, and never match as patterns. */
export type Piece =
	| { readonly kind: 'text'; readonly text: string; readonly quoted: boolean }
	| { readonly kind: 'expand'; readonly expansion: Expansion; readonly quoted: boolean }
	| { readonly kind: 'command'; readonly script: readonly Statement[]; readonly quoted: boolean }
	| { readonly kind: 'arithmetic'; readonly text: Word; readonly quoted: boolean };
/** One word as it stands in the text, in pieces that are expanded in their own ways. */
export type Word = readonly Piece[];

/** ${name}, ${#name}, ${name[index]}, ${name:-word}, ${name##pattern}, ${name:offset}. */
export interface Expansion {
	readonly name: string;
	/** "@" or "*" for all of an array, else an arithmetic word; null: no index. */
	readonly index: Word | '@' | '*' | null;
	readonly length: boolean;
	readonly operator: ':-' | '-' | ':=' | ':+' | '+' | ':?' | '#' | '##' | '%' | '%%' | ':' | '/' | '//' | null;
	readonly word: Word;
	/** Of `/` and `//`: what takes the place of the pattern. */
	readonly replacement: Word;
}

/** Source: POSIX.1-2017, XCU 2.7; `&>` is bash's. */
export interface Redirect {
	readonly descriptor: number;
	readonly operator: '<' | '>' | '>>' | '>&' | '<&' | '&>';
	readonly target: Word;
}
/** name=word, name+=word, name[index]=word. */
export interface Assignment {
	readonly name: string;
	readonly index: Word | null;
	readonly append: boolean;
	/** A list of words: an array. */
	readonly value: Word | { readonly list: readonly Word[] };
}

/** What a pipeline is made of. Source: POSIX.1-2017, XCU 2.9. */
export type Command =
	| {
			readonly kind: 'simple';
			readonly assignments: readonly Assignment[];
			readonly words: readonly Word[];
			readonly redirects: readonly Redirect[];
	  }
	| {
			readonly kind: 'if';
			readonly branches: readonly { readonly when: readonly Statement[]; readonly then: readonly Statement[] }[];
			readonly otherwise: readonly Statement[];
			readonly redirects: readonly Redirect[];
	  }
	| {
			readonly kind: 'while';
			readonly until: boolean;
			readonly when: readonly Statement[];
			readonly body: readonly Statement[];
			readonly redirects: readonly Redirect[];
	  }
	| {
			readonly kind: 'for';
			readonly name: string;
			/** Null: the positional parameters. */
			readonly words: readonly Word[] | null;
			readonly body: readonly Statement[];
			readonly redirects: readonly Redirect[];
	  }
	| {
			readonly kind: 'for-arithmetic';
			readonly start: Word;
			readonly test: Word;
			readonly step: Word;
			readonly body: readonly Statement[];
			readonly redirects: readonly Redirect[];
	  }
	| {
			readonly kind: 'case';
			readonly word: Word;
			readonly arms: readonly { readonly patterns: readonly Word[]; readonly body: readonly Statement[] }[];
			readonly redirects: readonly Redirect[];
	  }
	| {
			readonly kind: 'group';
			readonly subshell: boolean;
			readonly body: readonly Statement[];
			readonly redirects: readonly Redirect[];
	  }
	| { readonly kind: 'arithmetic'; readonly text: Word; readonly redirects: readonly Redirect[] }
	| { readonly kind: 'test'; readonly words: readonly Word[]; readonly redirects: readonly Redirect[] }
	| { readonly kind: 'function'; readonly name: string; readonly body: Command };

/** Commands joined by |, perhaps after "!". Source: POSIX.1-2017, XCU 2.9.2. */
export interface Pipeline {
	readonly negated: boolean;
	readonly commands: readonly Command[];
}
/** Pipelines joined by && and ||, the first without either. */
export type Statement = readonly { readonly join: '&&' | '||' | null; readonly pipeline: Pipeline }[];
