/** Whole-number expressions of $(( )) and (( )). Source: POSIX.1-2017, 2.6.4; bash(1), ARITHMETIC EVALUATION. */
interface Variables {
	get(name: string): string;
	set(name: string, value: string): void;
}
/** What an expression that cannot be computed throws; its message is what the shell prints. */
export class ArithmeticFault extends Error {}

const LEVELS: readonly (readonly string[])[] = [
	['||'],
	['&&'],
	['|'],
	['^'],
	['&'],
	['==', '!='],
	['<=', '>=', '<', '>'],
	['<<', '>>'],
	['+', '-'],
	['*', '/', '%']
];
const TOKEN =
	/(?:(?:0[xX][0-9a-fA-F]+|\d+)|(?:[A-Za-z_]\w*)|(?:\+\+|--|<<=|>>=|[-+*/%&|^]=|<<|>>|<=|>=|==|!=|&&|\|\||[-+*/%<>=!~&|^?:(),]))/y;

/** $(( … )), 64-bit integers. Throws `ArithmeticFault`. Source: POSIX.1-2017, XCU 2.6.4. */
export function computeArithmetic(text: string, variables: Variables): number {
	const tokens: string[] = [];
	for (const word of text.split(/\s/)) {
		TOKEN.lastIndex = 0;
		while (TOKEN.lastIndex < word.length) {
			const m = TOKEN.exec(word);
			if (!m) throw new ArithmeticFault(`"${text.slice(0, 60)}" is no arithmetic`);
			tokens.push(m[0]);
		}
	}
	if (tokens.length === 0) return 0;
	const parser = new Arithmetic(tokens, variables);
	const value = parser.list();
	if (!parser.atEnd) throw new ArithmeticFault(`"${text.slice(0, 60)}" is no arithmetic`);
	return value;
}

class Arithmetic {
	#at = 0;
	#depth = 0;
	constructor(
		readonly tokens: readonly string[],
		readonly variables: Variables
	) {}
	get atEnd(): boolean {
		return this.#at >= this.tokens.length;
	}
	#peek(): string {
		return this.tokens[this.#at] ?? '';
	}
	#accept(token: string): boolean {
		if (this.#peek() !== token) return false;
		this.#at++;
		return true;
	}
	#value(name: string): number {
		const text = this.variables.get(name).trim();
		if (text === '') return 0;
		const value = Number(text);
		if (!Number.isInteger(value))
			throw new ArithmeticFault(`${name} is "${text.slice(0, 40)}", which is no whole number`);
		return value;
	}
	#set(name: string, value: number): number {
		this.variables.set(name, String(value));
		return value;
	}

	list(): number {
		let value = this.#assign();
		while (this.#accept(',')) value = this.#assign();
		return value;
	}
	#assign(): number {
		if (++this.#depth > 200) throw new ArithmeticFault('nested too deep');
		const name = this.#peek();
		const operator = this.tokens[this.#at + 1] ?? '';
		let value: number;
		if (/^[A-Za-z_]/.test(name) && /^(?:[-+*/%&|^]|<<|>>)?=$/.test(operator)) {
			this.#at += 2;
			const right = this.#assign();
			value = this.#set(name, operator === '=' ? right : apply(operator.slice(0, -1), this.#value(name), right));
		} else value = this.#choice();
		this.#depth--;
		return value;
	}
	#choice(): number {
		const when = this.#level(0);
		if (!this.#accept('?')) return when;
		const yes = this.#assign();
		if (!this.#accept(':')) throw new ArithmeticFault('":" is missing');
		const no = this.#assign();
		return when ? yes : no;
	}
	#level(n: number): number {
		const operators = LEVELS[n];
		if (!operators) return this.#unary();
		let left = this.#level(n + 1);
		while (operators.includes(this.#peek())) left = apply(this.tokens[this.#at++]!, left, this.#level(n + 1));
		return left;
	}
	#unary(): number {
		const token = this.tokens[this.#at++];
		switch (token) {
			case undefined:
				throw new ArithmeticFault('a value is missing');
			case '-':
				return -this.#unary();
			case '+':
				return this.#unary();
			case '!':
				return this.#unary() ? 0 : 1;
			case '~':
				return ~this.#unary();
			case '++':
			case '--': {
				const name = this.tokens[this.#at++] ?? '';
				return this.#set(name, this.#value(name) + (token === '++' ? 1 : -1));
			}
			case '(': {
				const value = this.list();
				if (!this.#accept(')')) throw new ArithmeticFault('")" is missing');
				return value;
			}
		}
		if (/^\d/.test(token)) return token.length > 1 && /^0\d/.test(token) ? parseInt(token, 8) : Number(token);
		if (!/^[A-Za-z_]/.test(token)) throw new ArithmeticFault(`"${token}" is not expected`);
		const value = this.#value(token);
		if (this.#accept('++')) this.#set(token, value + 1);
		else if (this.#accept('--')) this.#set(token, value - 1);
		return value;
	}
}

function apply(operator: string, a: number, b: number): number {
	switch (operator) {
		case '||':
			return a || b ? 1 : 0;
		case '&&':
			return a && b ? 1 : 0;
		case '|':
			return a | b;
		case '^':
			return a ^ b;
		case '&':
			return a & b;
		case '==':
			return Number(a === b);
		case '!=':
			return Number(a !== b);
		case '<=':
			return Number(a <= b);
		case '>=':
			return Number(a >= b);
		case '<':
			return Number(a < b);
		case '>':
			return Number(a > b);
		case '<<':
			return a * 2 ** b;
		case '>>':
			return Math.floor(a / 2 ** b);
		case '+':
			return a + b;
		case '-':
			return a - b;
		case '*':
			return a * b;
	}
	if (b === 0) throw new ArithmeticFault('division by 0');
	return operator === '/' ? Math.trunc(a / b) : a % b;
}
