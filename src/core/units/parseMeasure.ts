import { findUnit, type Quantity, type Unit } from './quantities';

/** The base-unit value of what was typed, or a sentence that says what to type instead. */
export type ParsedMeasure = { ok: true; value: number } | { ok: false; message: string };

type Token = { kind: 'number'; value: number } | { kind: 'op'; value: string } | { kind: 'unit'; value: Unit };
/** A number on its way: `unit` is unset while it is a bare number or factor. */
interface Amount {
  value: number;
  hasUnit: boolean;
}

const FRACTIONS: Record<string, string> = {
  '½': ' 1/2',
  '¼': ' 1/4',
  '¾': ' 3/4',
  '⅛': ' 1/8',
  '⅜': ' 3/8',
  '⅝': ' 5/8',
  '⅞': ' 7/8',
};
const EXAMPLES: Record<Quantity, string> = {
  length: '140, 4 3/4" or 16 cm',
  area: '96 cm²',
  volume: '40 ml or 3 fl oz',
  mass: '12.5 g or 2 oz',
  temperature: '18.5 °C or 65 °F',
  duration: '25 min or 24 h',
  slope: '1.5 mm/m or 0.1°',
  fraction: '2 %',
  number: '3 or 2*6',
};

/**
 * Reads a measure as makers type it: units, fractions, feet and inches, arithmetic.
 * `4 3/4"`, `1/8 in`, `2'6"`, `16 cm`, `3*160+2`, `3 fl oz`. A bare number is in `defaultUnit`.
 * Returns base units (mm, ml, g, °C, min, fraction). A decimal comma is read as a point.
 */
export function parseMeasure(text: string, quantity: Quantity, defaultUnit: Unit): ParsedMeasure {
  const fail = (message: string): ParsedMeasure => ({ ok: false, message });
  if (text.trim() === '') return fail(`Type a value, for example ${EXAMPLES[quantity]}.`);
  const tokens = tokenise(text, quantity);
  if (typeof tokens === 'string') return fail(`“${tokens}” is not understood here. Try ${EXAMPLES[quantity]}.`);
  const parser = new Parser(tokens, defaultUnit);
  const amount = parser.sum();
  if (!amount || !parser.atEnd()) return fail(`That does not read as a measure. Try ${EXAMPLES[quantity]}.`);
  const value = amount.hasUnit ? amount.value : defaultUnit.toBase(amount.value);
  if (!Number.isFinite(value)) return fail('That comes to no finite number (a division by zero?).');
  return { ok: true, value };
}

function tokenise(text: string, quantity: Quantity): Token[] | string {
  const spaced = text
    .replace(/[½¼¾⅛⅜⅝⅞]/g, (char) => FRACTIONS[char] ?? char)
    .replace(/[×x](?=\s*\d)/g, '*')
    .replace(/[÷⁄]/g, '/')
    .replace(/−/g, '-')
    .replace(/(\d),(\d)/g, '$1.$2');
  const tokens: Token[] = [];
  let rest = spaced;
  while ((rest = rest.trimStart()) !== '') {
    const number = /^(\d+\.?\d*|\.\d+)/.exec(rest);
    const op = /^[-+*/()]/.exec(rest);
    const word = /^(fl\s*oz|mm\/m(?![a-z])|°\s*[cfCF]|[a-zA-Z°²³℃℉%]+[23]?|["'″′”’])/i.exec(rest);
    if (number) tokens.push({ kind: 'number', value: Number(number[0]) });
    else if (op) tokens.push({ kind: 'op', value: op[0] });
    else if (word) {
      const unit = findUnit(quantity, word[0].replace(/\s+/g, word[0].startsWith('°') ? '' : ' '));
      if (!unit) return word[0];
      tokens.push({ kind: 'unit', value: unit });
    } else return rest.slice(0, 8);
    rest = rest.slice((number ?? op ?? word)?.[0].length ?? 1);
  }
  return tokens;
}

/** Recursive descent over sums of products; fractions and unit runs (`4 3/4"`, `2'6"`) bind tightest. */
class Parser {
  private at = 0;
  constructor(
    private readonly tokens: readonly Token[],
    private readonly defaultUnit: Unit,
  ) {}

  atEnd(): boolean {
    return this.at >= this.tokens.length;
  }

  sum(): Amount | null {
    let left = this.product();
    while (left && this.isOp('+', '-')) {
      const sign = this.takeOp() === '+' ? 1 : -1;
      const right = this.product();
      if (!right) return null;
      const [a, b] = left.hasUnit === right.hasUnit ? [left, right] : [this.withUnit(left), this.withUnit(right)];
      left = { value: a.value + sign * b.value, hasUnit: a.hasUnit };
    }
    return left;
  }

  private product(): Amount | null {
    let left = this.signed();
    while (left && this.isOp('*', '/')) {
      const times = this.takeOp() === '*';
      const right = this.signed();
      if (!right || (left.hasUnit && right.hasUnit) || (!times && right.hasUnit)) return null;
      left = {
        value: times ? left.value * right.value : left.value / right.value,
        hasUnit: left.hasUnit || right.hasUnit,
      };
    }
    return left;
  }

  private signed(): Amount | null {
    if (!this.isOp('-', '+')) return this.compound();
    const sign = this.takeOp() === '-' ? -1 : 1;
    const amount = this.compound();
    return amount && { ...amount, value: sign * amount.value };
  }

  /** One or more numbers with units run together: `2'6"`, `5 ft 3 1/2 in`. */
  private compound(): Amount | null {
    if (this.isOp('(')) {
      this.at++;
      const inner = this.sum();
      if (!inner || !this.isOp(')')) return null;
      this.at++;
      return inner;
    }
    let total = this.single();
    while (total?.hasUnit && this.tokens[this.at]?.kind === 'number') {
      const next = this.single();
      if (!next?.hasUnit) return null;
      total = { value: total.value + next.value, hasUnit: true };
    }
    return total;
  }

  private single(): Amount | null {
    const first = this.number();
    if (first === null) return null;
    const value = first + this.fractionAfter(first);
    const token = this.tokens[this.at];
    if (token?.kind !== 'unit') return { value, hasUnit: false };
    this.at++;
    return { value: token.value.toBase(value), hasUnit: true };
  }

  /** `3/4` in `4 3/4`, or the `/8` in `1/8 in` (only when a unit follows or a whole number came before). */
  private fractionAfter(first: number): number {
    const [a, slash, b] = [this.tokens[this.at], this.tokens[this.at + 1], this.tokens[this.at + 2]];
    if (a?.kind === 'number' && slash?.kind === 'op' && slash.value === '/' && b?.kind === 'number') {
      this.at += 3;
      return a.value / b.value;
    }
    if (a?.kind === 'op' && a.value === '/' && slash?.kind === 'number' && b?.kind === 'unit') {
      this.at += 2;
      return first / slash.value - first;
    }
    return 0;
  }

  private number(): number | null {
    const token = this.tokens[this.at];
    if (token?.kind !== 'number') return null;
    this.at++;
    return token.value;
  }

  private withUnit(amount: Amount): Amount {
    return amount.hasUnit ? amount : { value: this.defaultUnit.toBase(amount.value), hasUnit: true };
  }

  private isOp(...ops: string[]): boolean {
    const token = this.tokens[this.at];
    return token?.kind === 'op' && ops.includes(token.value);
  }

  private takeOp(): string {
    const token = this.tokens[this.at++];
    return token?.kind === 'op' ? token.value : '';
  }
}
